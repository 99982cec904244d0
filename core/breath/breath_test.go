package breath

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParseExactKeepsWhatIsWritten(t *testing.T) {
	for text, want := range map[string]Exact{
		"4.35": Ratio(435, 100), "54": Int(54), "-0.5": Ratio(-1, 2), "1e3": Int(1000), "2.5E-1": Ratio(1, 4), "0": {},
	} {
		got, err := ParseExact(text)
		require.NoError(t, err, text)
		assert.True(t, got.Equal(want), "%s is %s", text, got)
	}
	for _, text := range []string{"", "a", "1/3", "1_000", "0x10", "1e999999999", "1e", "Inf", "NaN",
		"1234567890123456789012345678901234567890123"} {
		_, err := ParseExact(text)
		assert.ErrorIs(t, err, ErrNumber, text)
	}
}

// 10,000 counts at 53 a minute end where arithmetic says (pacing.md section 2).
func TestPositionsDoNotDrift(t *testing.T) {
	var at Exact
	for range 10_000 {
		at = at.Add(CountLength(Int(53)))
	}
	assert.True(t, at.Equal(Ratio(600_000_000, 53)))
	assert.EqualValues(t, 11_320_755, at.Round()) // 11320754.716...
}

func TestRoundIsHalfUp(t *testing.T) {
	for _, c := range []struct {
		n, d, want int64
	}{{1, 2, 1}, {-1, 2, 0}, {3, 2, 2}, {49, 100, 0}, {-51, 100, -1}, {7, 1, 7}} {
		assert.Equal(t, c.want, Ratio(c.n, c.d).Round(), "%d/%d", c.n, c.d)
	}
}

// Exact agrees with math/big, also where the fractions no longer fit into two words.
func TestExactAgreesWithBig(t *testing.T) {
	value := rapid.Custom(func(t *rapid.T) Exact {
		x := Ratio(rapid.Int64Range(-1<<62, 1<<62).Draw(t, "n"), rapid.Int64Range(1, 1<<62).Draw(t, "d"))
		if rapid.Bool().Draw(t, "small") {
			x = Ratio(rapid.Int64Range(-1000, 1000).Draw(t, "n"), rapid.Int64Range(1, 1000).Draw(t, "d"))
		}
		return x
	})
	rapid.Check(t, func(t *rapid.T) {
		x, y := value.Draw(t, "x"), value.Draw(t, "y")
		a, b := x.rat(), y.rat()
		same := func(want *big.Rat, got Exact) {
			if want.Cmp(got.rat()) != 0 {
				t.Fatalf("want %s, got %s", want, got.rat())
			}
		}
		same(new(big.Rat).Add(a, b), x.Add(y))
		same(new(big.Rat).Sub(a, b), x.Sub(y))
		same(new(big.Rat).Mul(a, b), x.Mul(y))
		if y.Sign() != 0 {
			same(new(big.Rat).Quo(a, b), x.Div(y))
		}
		assert.Equal(t, a.Cmp(b), x.Cmp(y))
		floor := new(big.Int).Div(a.Num(), a.Denom())
		assert.Equal(t, floor.Int64(), x.Floor())
	})
}

func TestParseCounts(t *testing.T) {
	for text, want := range map[string]Counts{
		"4:8": {4, 0, 8, 0}, "4:4:8": {4, 4, 8, 0}, "4:4:4:4": {4, 4, 4, 4}, "60:120:60:120": {60, 120, 60, 120},
		"4:0:6": {4, 0, 6, 0},
	} {
		got, err := ParseCounts(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
		again, err := ParseCounts(got.String())
		require.NoError(t, err)
		assert.Equal(t, want, again, "its own writing is read back")
	}
	for _, text := range []string{"", "4", "4:", "0:4", "4:0", "61:4", "4:121:4", "4:4:4:4:4", "4:-1:4", "+4:4", "4.5:4",
		"four:four", "0004:4"} {
		_, err := ParseCounts(text)
		assert.ErrorIs(t, err, ErrCounts, text)
	}
}

// Classical levels of measured retention, from memory: Gheranda Samhita, chapter 5.
func TestClassicalLevelsAreOneFourTwo(t *testing.T) {
	for _, text := range []string{"12:48:24", "16:64:32", "20:80:40"} {
		c, err := ParseCounts(text)
		require.NoError(t, err)
		assert.Equal(t, []int{4 * c.Inhale, 2 * c.Inhale}, []int{c.Hold, c.Exhale}, text)
	}
}

func TestExactAsText(t *testing.T) {
	for _, x := range []Exact{{}, Int(-7), Ratio(10000, 9), Ratio(1, 3).Mul(Int(1 << 62)).Mul(Int(1 << 62))} {
		text, err := x.MarshalText()
		require.NoError(t, err)
		var again Exact
		require.NoError(t, again.UnmarshalText(text))
		assert.True(t, x.Equal(again), string(text))
	}
	var x Exact
	assert.ErrorIs(t, x.UnmarshalText([]byte("one")), ErrNumber)
}
