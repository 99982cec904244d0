package breath

import (
	"math/big"
	"math/bits"
	"strconv"
	"strings"

	"vastlantern/core/fact"
)

// Exact is an exact rational number: a position or a length in milliseconds, a tempo in counts a minute, a
// number of seconds as it was written. The zero value is 0. Values are immutable; compare them with Cmp, never
// with ==, since one number has several representations.
//
// Positions are sums of many fractions (pacing.md, section 2), so a float or a running sum of whole milliseconds
// drifts. Nearly every class stays within two machine words; a class whose tempo was changed many times grows
// longer fractions and goes over to math/big without anybody noticing.
type Exact struct {
	num, less int64 // num/(less+1): the denominator is stored less one, so that the zero value is 0/1
	big       *big.Rat
}

// Int returns the whole number n.
func Int(n int64) Exact { return Exact{num: n} }

// Ratio returns n/d, for d other than 0.
func Ratio(n, d int64) Exact { return Int(n).Div(Int(d)) }

// ErrNumber is what ParseExact returns for text that is not a decimal number of a sensible size.
var ErrNumber = fact.New("number.form")

// maxDigits bounds what ParseExact reads: "1e999999999" is nine characters and a gigabyte of digits.
const maxDigits = 40

// ParseExact reads a decimal number as JSON writes it ("4.35", "-2", "1e3") and keeps every digit.
func ParseExact(text string) (Exact, error) {
	mantissa, exponent, _ := strings.Cut(strings.ToLower(text), "e")
	if len(mantissa) > maxDigits || strings.ContainsAny(text, "/_xXpPbBoO") {
		return Exact{}, ErrNumber
	}
	if exponent != "" {
		if e, err := strconv.Atoi(exponent); err != nil || e > maxDigits || e < -maxDigits {
			return Exact{}, ErrNumber
		}
	}
	r, ok := new(big.Rat).SetString(text)
	if !ok {
		return Exact{}, ErrNumber
	}
	return fromRat(r), nil
}

func fromRat(r *big.Rat) Exact {
	if r.Num().IsInt64() && r.Denom().IsInt64() && r.Num().Int64() != -1<<63 {
		return Exact{num: r.Num().Int64(), less: r.Denom().Int64() - 1}
	}
	return Exact{big: r}
}

func (x Exact) den() int64 { return x.less + 1 }

func (x Exact) rat() *big.Rat {
	if x.big != nil {
		return x.big
	}
	return big.NewRat(x.num, x.den())
}

// times multiplies two words and reports whether the product still fits into one.
func times(a, b int64) (int64, bool) {
	high, low := bits.Mul64(magnitude(a), magnitude(b))
	if high != 0 || low > 1<<63-1 {
		return 0, false
	}
	if (a < 0) != (b < 0) {
		return -int64(low), true
	}
	return int64(low), true
}

func plus(a, b int64) (int64, bool) {
	sum := a + b
	return sum, (sum > a) == (b > 0) && sum != -1<<63
}

func magnitude(a int64) uint64 {
	if a < 0 {
		return uint64(-a)
	}
	return uint64(a)
}

func gcd(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	if a < 0 {
		return -a
	}
	return a
}

// Add returns x + y.
func (x Exact) Add(y Exact) Exact {
	if x.big == nil && y.big == nil {
		if x.less == y.less {
			if sum, ok := plus(x.num, y.num); ok {
				return Exact{num: sum, less: x.less}
			}
		} else {
			shared := gcd(x.den(), y.den())
			left, ok1 := times(x.num, y.den()/shared)
			right, ok2 := times(y.num, x.den()/shared)
			den, ok3 := times(x.den(), y.den()/shared)
			sum, ok4 := plus(left, right)
			if ok1 && ok2 && ok3 && ok4 {
				return Exact{num: sum, less: den - 1}
			}
		}
	}
	return fromRat(new(big.Rat).Add(x.rat(), y.rat()))
}

// Neg is -x.
func (x Exact) Neg() Exact {
	if x.big != nil {
		return Exact{big: new(big.Rat).Neg(x.big)}
	}
	return Exact{num: -x.num, less: x.less}
}

// Sub returns x - y.
func (x Exact) Sub(y Exact) Exact { return x.Add(y.Neg()) }

// Mul returns x times y.
func (x Exact) Mul(y Exact) Exact {
	if x.big == nil && y.big == nil {
		across, back := gcd(x.num, y.den()), gcd(y.num, x.den())
		num, ok1 := times(x.num/across, y.num/back)
		den, ok2 := times(x.den()/back, y.den()/across)
		if ok1 && ok2 {
			return Exact{num: num, less: den - 1}
		}
	}
	return fromRat(new(big.Rat).Mul(x.rat(), y.rat()))
}

// Times returns x taken n times.
func (x Exact) Times(n int) Exact { return x.Mul(Int(int64(n))) }

// Div returns x divided by y; y must not be 0.
func (x Exact) Div(y Exact) Exact {
	if y.big == nil && y.num != 0 {
		inverse := Exact{num: y.den(), less: y.num - 1}
		if y.num < 0 {
			inverse = Exact{num: -y.den(), less: -y.num - 1}
		}
		return x.Mul(inverse)
	}
	return fromRat(new(big.Rat).Quo(x.rat(), y.rat()))
}

// Cmp is -1, 0 or +1 as x is less than, equal to or greater than y.
func (x Exact) Cmp(y Exact) int {
	if x.big == nil && y.big == nil {
		left, ok1 := times(x.num, y.den())
		right, ok2 := times(y.num, x.den())
		if ok1 && ok2 {
			switch {
			case left < right:
				return -1
			case left > right:
				return 1
			}
			return 0
		}
	}
	return x.rat().Cmp(y.rat())
}

// Less reports whether x < y.
func (x Exact) Less(y Exact) bool { return x.Cmp(y) < 0 }

// Equal reports whether x and y are the same number.
func (x Exact) Equal(y Exact) bool { return x.Cmp(y) == 0 }

// Sign is -1, 0 or +1.
func (x Exact) Sign() int { return x.Cmp(Exact{}) }

// Floor returns the largest whole number that is not above x. Values beyond an int64 are not expected: a class is
// bounded to hours.
func (x Exact) Floor() int64 {
	if x.big == nil {
		q := x.num / x.den()
		if x.num%x.den() < 0 {
			q--
		}
		return q
	}
	// big.Int's Div is Euclidean, which for a positive divisor is the floor.
	return new(big.Int).Div(x.big.Num(), x.big.Denom()).Int64()
}

// Round returns x rounded half up to a whole number, the one rounding that pacing.md section 2 allows.
func (x Exact) Round() int64 {
	const safe = 1 << 60 // twice of it and once more fit into a word
	if x.big == nil && x.num > -safe && x.num < safe && x.less < safe {
		return Exact{num: 2*x.num + x.den(), less: 2*x.den() - 1}.Floor()
	}
	return x.Add(Exact{num: 1, less: 1}).Floor()
}

// Whole returns x as an int, and whether it is a whole number of that size.
func (x Exact) Whole() (int, bool) {
	n := x.Floor()
	return int(n), Int(n).Equal(x)
}

// Float returns the nearest float64, for plots and screens only.
func (x Exact) Float() float64 {
	f, _ := x.rat().Float64()
	return f
}

// String writes x as a decimal without trailing zeros, cut after three places.
func (x Exact) String() string {
	text := x.rat().FloatString(3)
	return strings.TrimSuffix(strings.TrimRight(text, "0"), ".")
}

// Max returns the greater of x and y.
func Max(x, y Exact) Exact {
	if x.Less(y) {
		return y
	}
	return x
}

// Min returns the smaller of x and y.
func Min(x, y Exact) Exact {
	if y.Less(x) {
		return y
	}
	return x
}

// MarshalText writes the number as a fraction, n/d, with every digit.
func (x Exact) MarshalText() ([]byte, error) { return []byte(x.rat().RatString()), nil }

// UnmarshalText reads what MarshalText writes.
func (x *Exact) UnmarshalText(text []byte) error {
	r, ok := new(big.Rat).SetString(string(text))
	if !ok {
		return ErrNumber
	}
	*x = fromRat(r)
	return nil
}
