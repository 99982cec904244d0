package web

import (
	"bytes"
	"image"
	"image/color"
	"image/png"

	"github.com/yeqown/go-qrcode/v2"
)

const (
	modulePixels = 8 // of one square of the code
	quietZone    = 4 // squares of white around it (ISO/IEC 18004)
)

// qrPicture is a QR code of the text as PNG.
func qrPicture(text string) ([]byte, error) {
	code, err := qrcode.NewWith(text, qrcode.WithErrorCorrectionLevel(qrcode.ErrorCorrectionMedium))
	if err != nil {
		return nil, err
	}
	var picture squares
	if err := code.Save(&picture); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err = png.Encode(&out, picture.image)
	return out.Bytes(), err
}

// squares draws the code.
type squares struct{ image *image.Paletted }

// Write implements qrcode.Writer.
func (s *squares) Write(code qrcode.Matrix) error {
	side := (code.Width() + 2*quietZone) * modulePixels
	s.image = image.NewPaletted(image.Rect(0, 0, side, side), color.Palette{color.White, color.Black})
	code.Iterate(qrcode.IterDirection_ROW, func(x, y int, square qrcode.QRValue) {
		if !square.IsSet() {
			return
		}
		left, top := (x+quietZone)*modulePixels, (y+quietZone)*modulePixels
		for row := range modulePixels {
			for column := range modulePixels {
				s.image.SetColorIndex(left+column, top+row, 1)
			}
		}
	})
	return nil
}

// Close implements qrcode.Writer.
func (*squares) Close() error { return nil }
