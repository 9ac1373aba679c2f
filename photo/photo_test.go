package photo

import (
	"bytes"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"slices"
	"testing"
)

func picture(w, h int) image.Image {
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for i := range m.Pix {
		m.Pix[i] = byte(i * 7)
	}
	m.Set(0, 0, color.White)
	return m
}

func jpegOf(t *testing.T, w, h int) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, picture(w, h), nil); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func segment(marker byte, says []byte) []byte {
	n := len(says) + 2
	return append([]byte{0xFF, marker, byte(n >> 8), byte(n)}, says...)
}

func chunk(kind string, says []byte) []byte {
	b := binary.BigEndian.AppendUint32(nil, uint32(len(says)))
	b = append(append(b, kind...), says...)
	return binary.BigEndian.AppendUint32(b, crc32.ChecksumIEEE(b[4:]))
}

// exifWith is an Exif segment as cameras write it, in either order of bytes (TIFF 6.0,
// section 2): which way up, the maker, and a pointer to where it was taken.
func exifWith(order binary.AppendByteOrder, turned uint16) []byte {
	b := []byte("Exif\x00\x00II*\x00")
	if order == binary.AppendByteOrder(binary.BigEndian) {
		b = []byte("Exif\x00\x00MM\x00*")
	}
	b = order.AppendUint32(b, 8)
	b = order.AppendUint16(b, 3)
	for _, e := range [][3]uint32{{0x010F, 2, 4}, {tagTurned, 3, 1}, {0x8825, 4, 1}} {
		b = order.AppendUint16(b, uint16(e[0]))
		b = order.AppendUint16(b, uint16(e[1]))
		b = order.AppendUint32(b, e[2])
		if e[0] == tagTurned {
			b = order.AppendUint16(order.AppendUint16(b, turned), 0)
		} else {
			b = append(b, "here"...)
		}
	}
	return append(b, 0, 0, 0, 0)
}

// What says where, when and with what a photograph was taken stays out, wherever in the
// file it stands; the picture is the same to the last pixel, and the same way up.
func TestOnlyThePictureIsKept(t *testing.T) {
	plain := jpegOf(t, 40, 30)
	for turned := range uint16(9) {
		for _, order := range []binary.AppendByteOrder{binary.BigEndian, binary.LittleEndian} {
			raw := slices.Concat(plain[:2], segment(app1, exifWith(order, turned)), segment(app1, []byte("http://ns.example/xap/ here")), segment(0xED, []byte("here")), segment(comment, []byte("here")), plain[2:], []byte("here"))
			got, err := Take(raw)
			if err != nil || got.Kind != "image/jpeg" || got.Width != 40 || got.Height != 30 {
				t.Fatalf("%+v %v", got, err)
			}
			if bytes.Contains(got.Bytes, []byte("here")) {
				t.Error("it still says more than the picture")
			}
			want := plain
			if turned > 1 {
				want = slices.Concat(plain[:2], upright(byte(turned)), plain[2:])
				if o := orientation(got.Bytes[6:]); o != byte(turned) {
					t.Errorf("turned %d, kept as %d", turned, o)
				}
			}
			if !bytes.Equal(got.Bytes, want) {
				t.Errorf("turned %d: the picture is not what it was", turned)
			}
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, picture(9, 9)); err != nil {
		t.Fatal(err)
	}
	plain = b.Bytes()
	end := len(plain) - 12
	raw := slices.Concat(plain[:33], chunk("eXIf", exifWith(binary.BigEndian, 6)), chunk("tEXt", []byte("Comment\x00here")), plain[33:end], chunk("tIME", make([]byte, 7)), plain[end:], []byte("here"))
	if got, err := Take(raw); err != nil || !bytes.Equal(got.Bytes, plain) {
		t.Errorf("PNG: %v", err)
	}
}

// What is no whole photograph is refused: 45 bytes that claim 4096 × 4096 pixels too.
func TestWhatIsNoPhotographIsRefused(t *testing.T) {
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, 4096), 4096)
	claims := slices.Concat([]byte("\x89PNG\r\n\x1a\n"), chunk("IHDR", append(head, 8, 6, 0, 0, 0)), chunk("IEND", nil))
	if len(claims) != 45 {
		t.Fatal(len(claims))
	}
	whole := jpegOf(t, 64, 64)
	bad := map[string][]byte{"claims": claims, "nothing": nil, "words": []byte("no photograph"), "cut": whole[:len(whole)/2], "half a head": whole[:20], "large": make([]byte, MostBytes+1)}
	for name, raw := range bad {
		var refused Refused
		if _, err := Take(raw); !errors.As(err, &refused) || refused.Given == "" || refused.Allowed == "" {
			t.Errorf("%s: %v", name, err)
		}
	}
	wide := image.NewGray(image.Rect(0, 0, MostPixels+1, 1))
	var b bytes.Buffer
	if err := png.Encode(&b, wide); err != nil {
		t.Fatal(err)
	}
	if _, err := Take(b.Bytes()); err == nil {
		t.Error("too wide, and taken")
	}
}

// Whatever is done to a photograph, it is taken or refused, and what is taken can be
// read again and says the same.
func TestDamagedPhotographs(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	whole := slices.Concat(jpegOf(t, 64, 64)[:2], segment(app1, exifWith(binary.LittleEndian, 6)), jpegOf(t, 64, 64)[2:])
	taken := 0
	for range 3000 {
		raw := bytes.Clone(whole)
		for range 1 + r.IntN(4) {
			raw[r.IntN(len(raw))] ^= 1 << r.IntN(8)
		}
		if r.IntN(3) == 0 {
			raw = raw[:r.IntN(len(raw))]
		}
		got, err := Take(raw)
		if err != nil {
			continue
		}
		taken++
		again, err := Take(got.Bytes)
		if err != nil || !bytes.Equal(again.Bytes, got.Bytes) {
			t.Fatalf("taken once and not twice: %v", err)
		}
	}
	if taken == 0 {
		t.Error("none was taken: nothing was tried")
	}
}
