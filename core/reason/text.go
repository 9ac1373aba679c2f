// Package reason says why a number is what it is: the rules that spoke, what
// each asked, which one governed, with the source of each.
package reason

import (
	"fmt"
	"strconv"
	"strings"

	"mallow/core/length"
)

// PartKind tells how a part of a sentence is printed.
type PartKind string

// Kinds of part. Measures stay numbers until they are printed, so that one
// sentence serves both systems and fractions can be set as fractions.
const (
	PlainText PartKind = "text"
	Measure   PartKind = "length" // millimetres, printed short
	Station   PartKind = "tape"   // millimetres, printed as a running distance
	Poured    PartKind = "small"  // cubic metres, printed in ft³ or litres
	Ordered   PartKind = "bulk"   // cubic metres, printed in yd³ or m³
	Number    PartKind = "number"
	Gust      PartKind = "wind"        // metres per second, printed in mph or km/h
	Heft      PartKind = "mass"        // kilograms, printed in lb or kg
	Push      PartKind = "force"       // newtons, printed in lbf or N
	Turning   PartKind = "moment"      // newton metres, printed in lbf ft or N m
	Bearing   PartKind = "pressure"    // pascals, printed in psf or kPa
	Warmth    PartKind = "temperature" // degrees Celsius, printed in °F or °C
	Dries     PartKind = "drying"      // kilograms to the square metre and hour, printed in lb/ft²/h or kg/m²/h
)

// Part is a piece of a sentence: words or a number.
type Part struct {
	Kind  PartKind `json:"kind" jsonschema:"required,enum=text,enum=length,enum=tape,enum=small,enum=bulk,enum=number,enum=wind,enum=mass,enum=force,enum=moment,enum=pressure,enum=temperature,enum=drying"`
	Text  string   `json:"text,omitempty"`
	Value float64  `json:"value,omitempty" jsonschema_description:"Millimetres, cubic metres, metres per second, kilograms, newtons, newton metres, pascals, degrees Celsius, kilograms to the square metre and hour, hours or a plain number, by kind."`

	System length.System `json:"system,omitempty" jsonschema:"enum=imperial,enum=metric" jsonschema_description:"Of a length: it is said in the units of this system, as it was entered; without it in the job's. Of words: they are said in jobs of this system only."`
}

// As is a length said in the units of a system, as it was entered.
type As struct {
	Length length.Length
	System length.System
}

// Speed is a wind, metres per second.
type Speed float64

// Force is newtons, Moment newton metres, Pressure pascals.
type (
	Force    float64
	Moment   float64
	Pressure float64
)

// Degrees is a temperature in degrees Celsius, Drying water that leaves a surface in
// kilograms to the square metre and hour.
type (
	Degrees float64
	Drying  float64
)

// Text is a sentence.
type Text []Part

// Tape marks a length as a running distance.
type Tape length.Length

// Bulk marks a volume as one that is ordered by the yard or cubic metre.
type Bulk length.Volume

// Say builds a sentence from strings, lengths, Tape stations, volumes, Bulk
// volumes, masses, forces, moments, pressures, numbers and other sentences.
func Say(parts ...any) Text {
	t := make(Text, 0, len(parts))
	for _, p := range parts {
		switch v := p.(type) {
		case string:
			t = append(t, Part{Kind: PlainText, Text: v})
		case length.Length:
			t = append(t, Part{Kind: Measure, Value: float64(v)})
		case As:
			t = append(t, Part{Kind: Measure, Value: float64(v.Length), System: v.System})
		case Speed:
			t = append(t, Part{Kind: Gust, Value: float64(v)})
		case length.Mass:
			t = append(t, Part{Kind: Heft, Value: float64(v)})
		case Force:
			t = append(t, Part{Kind: Push, Value: float64(v)})
		case Moment:
			t = append(t, Part{Kind: Turning, Value: float64(v)})
		case Pressure:
			t = append(t, Part{Kind: Bearing, Value: float64(v)})
		case Degrees:
			t = append(t, Part{Kind: Warmth, Value: float64(v)})
		case Drying:
			t = append(t, Part{Kind: Dries, Value: float64(v)})
		case Tape:
			t = append(t, Part{Kind: Station, Value: float64(v)})
		case length.Volume:
			t = append(t, Part{Kind: Poured, Value: float64(v)})
		case Bulk:
			t = append(t, Part{Kind: Ordered, Value: float64(v)})
		case int:
			t = append(t, Part{Kind: Number, Value: float64(v)})
		case float64:
			t = append(t, Part{Kind: Number, Value: v})
		case Text:
			t = append(t, v...)
		default:
			t = append(t, Part{Kind: PlainText, Text: fmt.Sprint(v)})
		}
	}
	return t
}

// Words adds words.
func (t Text) Words(s string) Text { return append(t, Part{Kind: PlainText, Text: s}) }

// Spelled adds words that are spelled differently in jobs in feet and in metres.
func (t Text) Spelled(imperial, metric string) Text {
	return append(t, Part{Kind: PlainText, Text: imperial, System: length.Imperial}, Part{Kind: PlainText, Text: metric, System: length.Metric})
}

// Length adds a measure.
func (t Text) Length(l length.Length) Text { return append(t, Part{Kind: Measure, Value: float64(l)}) }

// Tape adds a running distance.
func (t Text) Tape(l length.Length) Text { return append(t, Part{Kind: Station, Value: float64(l)}) }

// Print writes the sentence in the user's units.
func (t Text) Print(u length.Units) string {
	var b strings.Builder
	for _, p := range t {
		switch p.Kind {
		case Measure:
			own := u
			if p.System != "" && p.System != u.System {
				own = length.Usual(p.System)
			}
			b.WriteString(own.Short(length.Length(p.Value)))
		case Gust:
			b.WriteString(u.Wind(p.Value))
		case Heft:
			b.WriteString(u.Weight(length.Mass(p.Value)))
		case Push:
			b.WriteString(u.Force(p.Value))
		case Turning:
			b.WriteString(u.Torque(p.Value))
		case Bearing:
			b.WriteString(u.Pressure(p.Value))
		case Warmth:
			b.WriteString(u.Temperature(p.Value))
		case Dries:
			b.WriteString(u.Drying(p.Value))
		case Station:
			b.WriteString(u.Tape(length.Length(p.Value)))
		case Poured:
			b.WriteString(u.Small(length.Volume(p.Value)))
		case Ordered:
			b.WriteString(u.Bulk(length.Volume(p.Value)))
		case Number:
			b.WriteString(strconv.FormatFloat(p.Value, 'f', decimals(p.Value), 64))
		default:
			if p.System == "" || p.System == u.System {
				b.WriteString(p.Text)
			}
		}
	}
	return b.String()
}

// decimals keeps whole numbers whole and shows others to hundredths.
func decimals(v float64) int {
	if v == float64(int64(v)) {
		return 0
	}
	return 2
}
