// Package photo takes in photographs: it makes sure that they are what they say, and
// takes out of them what a picture of a fence need not tell, such as where and with
// what it was taken.
package photo

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"slices"
)

// Limits of one photograph: the browser shrinks it to far less.
const (
	MostBytes  = 3 << 20
	MostPixels = 4096 // along a side
)

// Clean is a photograph that is kept: its picture, and which way up it is.
type Clean struct {
	Bytes         []byte
	Kind          string // image/jpeg or image/png
	Width, Height int
}

// Refused says why something is no photograph that is kept.
type Refused struct{ Given, Allowed string }

func (e Refused) Error() string { return "given " + e.Given + "; allowed " + e.Allowed }

// Take takes a photograph in. It is read whole: what only says that it is a picture is
// refused. What it says beside the picture stays out.
func Take(raw []byte) (Clean, error) {
	if len(raw) > MostBytes {
		return Clean{}, Refused{fmt.Sprintf("%d bytes", len(raw)), fmt.Sprintf("at most %d bytes: shrink it first", MostBytes)}
	}
	is, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil {
		return Clean{}, Refused{fmt.Sprintf("%d bytes that are no photograph", len(raw)), "a photograph as JPEG or PNG"}
	}
	if is.Width < 1 || is.Height < 1 || is.Width > MostPixels || is.Height > MostPixels {
		return Clean{}, Refused{fmt.Sprintf("%d × %d pixels", is.Width, is.Height), fmt.Sprintf("at most %d pixels along a side: shrink it first", MostPixels)}
	}
	clean, decode := cleanJPEG, jpeg.Decode
	if kind == "png" {
		clean, decode = cleanPNG, png.Decode
	}
	out := Clean{Kind: "image/" + kind, Width: is.Width, Height: is.Height}
	if out.Bytes, err = clean(raw); err == nil {
		_, err = decode(bytes.NewReader(out.Bytes))
	}
	if err != nil {
		return Clean{}, Refused{fmt.Sprintf("%d bytes that say they are %d × %d pixels and cannot be read as such (%v)", len(raw), is.Width, is.Height, err), "a whole photograph as JPEG or PNG"}
	}
	return out, nil
}

var errCut = errors.New("it is cut short")

// JPEG markers (ITU-T T.81, table B.1).
const (
	startOfImage = 0xD8
	endOfImage   = 0xD9
	startOfScan  = 0xDA
	restart      = 0xD0 // and seven more
	app0         = 0xE0 // JFIF
	app1         = 0xE1 // Exif, and other descriptions
	app2         = 0xE2 // colour profiles
	app14        = 0xEE // how colours are coded
	app15        = 0xEF
	comment      = 0xFE
)

// cleanJPEG leaves out every segment that describes the picture, but for how its colours
// are coded and which way up it is.
func cleanJPEG(raw []byte) ([]byte, error) {
	if len(raw) < 4 || raw[0] != 0xFF || raw[1] != startOfImage {
		return nil, errCut
	}
	out := append(make([]byte, 0, len(raw)), raw[:2]...)
	turned := byte(0)
	for at := 2; ; {
		for at < len(raw) && raw[at] == 0xFF && at+1 < len(raw) && raw[at+1] == 0xFF {
			at++ // fill bytes
		}
		if at+2 > len(raw) || raw[at] != 0xFF {
			return nil, errCut
		}
		marker := raw[at+1]
		if marker == endOfImage {
			return append(out, 0xFF, endOfImage), nil // whatever follows is not the picture
		}
		if at+4 > len(raw) {
			return nil, errCut
		}
		end := at + 2 + int(binary.BigEndian.Uint16(raw[at+2:]))
		if end > len(raw) || end < at+4 {
			return nil, errCut
		}
		described := marker >= app0 && marker <= app15 && marker != app0 && marker != app14 || marker == comment
		if marker == app2 && bytes.HasPrefix(raw[at+4:end], []byte("ICC_PROFILE\x00")) {
			described = false
		}
		if marker == app1 && turned == 0 {
			if turned = orientation(raw[at+4 : end]); turned > 1 {
				out = append(out, upright(turned)...)
			}
		}
		if !described {
			out = append(out, raw[at:end]...)
		}
		at = end
		if marker != startOfScan {
			continue
		}
		for at+1 < len(raw) && (raw[at] != 0xFF || raw[at+1] == 0 || raw[at+1]&^7 == restart) {
			at++ // the picture itself
		}
		out = append(out, raw[end:min(at, len(raw))]...)
		if at+1 >= len(raw) {
			return nil, errCut
		}
	}
}

var exif = []byte("Exif\x00\x00")

// tagTurned is the tag of TIFF 6.0 that says which way up a picture is, 1 to 8.
const tagTurned = 0x0112

// orientation reads which way up a picture is from its Exif segment; 0 where it does
// not say.
func orientation(segment []byte) byte {
	tiff, ok := bytes.CutPrefix(segment, exif)
	if !ok || len(tiff) < 8 {
		return 0
	}
	var order binary.ByteOrder = binary.BigEndian
	if tiff[0] == 'I' {
		order = binary.LittleEndian
	}
	at := int(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > len(tiff) {
		return 0
	}
	for n, at := int(order.Uint16(tiff[at:])), at+2; n > 0 && at+12 <= len(tiff); n, at = n-1, at+12 {
		if order.Uint16(tiff[at:]) == tagTurned {
			if v := order.Uint16(tiff[at+8:]); v >= 1 && v <= 8 {
				return byte(v)
			}
		}
	}
	return 0
}

// upright is an Exif segment that says which way up a picture is, and nothing else.
func upright(turned byte) []byte {
	tiff := []byte{'M', 'M', 0, 42, 0, 0, 0, 8, 0, 1, 1, 0x12, 0, 3, 0, 0, 0, 1, 0, turned, 0, 0, 0, 0, 0, 0}
	length := 2 + len(exif) + len(tiff)
	return slices.Concat([]byte{0xFF, app1, byte(length >> 8), byte(length)}, exif, tiff)
}

// what a PNG needs to be seen as it is; all other chunks stay out.
var pictureChunks = []string{"IHDR", "PLTE", "IDAT", "IEND", "tRNS", "gAMA", "cHRM", "sRGB", "iCCP", "sBIT", "pHYs"}

func cleanPNG(raw []byte) ([]byte, error) {
	const head = 8
	out := append(make([]byte, 0, len(raw)), raw[:min(head, len(raw))]...)
	for at := head; at+12 <= len(raw); {
		end := at + 12 + int(binary.BigEndian.Uint32(raw[at:]))
		if end > len(raw) || end < at+12 {
			return nil, errCut
		}
		kind := string(raw[at+4 : at+8])
		if slices.Contains(pictureChunks, kind) {
			out = append(out, raw[at:end]...)
		}
		if kind == "IEND" {
			return out, nil
		}
		at = end
	}
	return nil, errCut
}
