package web

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/png"

	"github.com/boombuler/barcode"
	"github.com/boombuler/barcode/qr"
)

const (
	modulePixels = 8 // of one square of the code
	quietZone    = 4 // squares of white around it (ISO/IEC 18004)
)

// qrPicture returns a QR code of the text as PNG.
func qrPicture(text string) ([]byte, error) {
	code, err := qr.Encode(text, qr.M, qr.Auto)
	if err != nil {
		return nil, err
	}
	side := code.Bounds().Dx() * modulePixels
	if code, err = barcode.Scale(code, side, side); err != nil {
		return nil, err
	}
	const margin = quietZone * modulePixels
	picture := image.NewPaletted(image.Rect(0, 0, side+2*margin, side+2*margin), color.Palette{color.White, color.Black})
	draw.Draw(picture, code.Bounds().Add(image.Pt(margin, margin)), code, image.Point{}, draw.Src)
	var out bytes.Buffer
	err = png.Encode(&out, picture)
	return out.Bytes(), err
}
