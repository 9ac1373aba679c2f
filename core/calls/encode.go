package calls

import (
	"encoding"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"
)

// What is sent is mostly numbers, and in a browser writing them took three
// times as long as working them out. So answers are written here: as
// encoding/json would (the tests hold that), but that no number has more than
// ten digits: of a fence as long as a town a hundredth of a thousandth of a
// millimetre. What binary fractions drag behind them beyond that is noise.

// figures is a value as JSON, its numbers no longer than they need be.
func figures(v any) ([]byte, error) {
	w := writers.Get().(*writer)
	defer writers.Put(w)
	w.b, w.err = w.b[:0], nil
	w.value(reflect.ValueOf(v))
	if w.err != nil {
		return nil, w.err
	}
	return append(make([]byte, 0, len(w.b)), w.b...), nil
}

type writer struct {
	b   []byte
	err error
}

var writers = sync.Pool{New: func() any { return new(writer) }}

// writes writes a value of one type.
type writes func(w *writer, v reflect.Value)

// known are the types that were met.
var known sync.Map // reflect.Type to writes

func (w *writer) value(v reflect.Value) {
	if !v.IsValid() {
		w.b = append(w.b, "null"...)
		return
	}
	typeWrites(v.Type())(w, v)
}

func typeWrites(t reflect.Type) writes {
	if f, ok := known.Load(t); ok {
		return f.(writes)
	}
	// A type that holds itself meets this while it is looked at.
	var own writes
	var once sync.WaitGroup
	once.Add(1)
	f, met := known.LoadOrStore(t, writes(func(w *writer, v reflect.Value) {
		once.Wait()
		own(w, v)
	}))
	if met {
		return f.(writes)
	}
	own = newWrites(t)
	once.Done()
	known.Store(t, own)
	return own
}

var (
	marshaler     = reflect.TypeFor[json.Marshaler]()
	textMarshaler = reflect.TypeFor[encoding.TextMarshaler]()
)

func newWrites(t reflect.Type) writes {
	if t.Implements(marshaler) || t.Implements(textMarshaler) || reflect.PointerTo(t).Implements(marshaler) || reflect.PointerTo(t).Implements(textMarshaler) {
		return asLibrary
	}
	switch t.Kind() {
	case reflect.Bool:
		return func(w *writer, v reflect.Value) { w.b = strconv.AppendBool(w.b, v.Bool()) }
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		return func(w *writer, v reflect.Value) { w.b = strconv.AppendInt(w.b, v.Int(), 10) }
	case reflect.Float64:
		return func(w *writer, v reflect.Value) { w.number(v.Float()) }
	case reflect.String:
		return func(w *writer, v reflect.Value) { w.text(v.String()) }
	case reflect.Pointer, reflect.Interface:
		return func(w *writer, v reflect.Value) {
			if v.IsNil() {
				w.b = append(w.b, "null"...)
				return
			}
			w.value(v.Elem())
		}
	case reflect.Slice, reflect.Array:
		return listWrites(t)
	case reflect.Map:
		return mapWrites(t)
	case reflect.Struct:
		return structWrites(t)
	}
	return asLibrary
}

// asLibrary writes what has its own way, or is rare, as encoding/json does.
func asLibrary(w *writer, v reflect.Value) {
	raw, err := json.Marshal(v.Interface())
	if err != nil && w.err == nil {
		w.err = err
	}
	w.b = append(w.b, raw...)
}

func listWrites(t reflect.Type) writes {
	if t.Elem().Kind() == reflect.Uint8 {
		return asLibrary
	}
	each := typeWrites(t.Elem())
	return func(w *writer, v reflect.Value) {
		if v.Kind() == reflect.Slice && v.IsNil() {
			w.b = append(w.b, "null"...)
			return
		}
		w.b = append(w.b, '[')
		for i := range v.Len() {
			if i > 0 {
				w.b = append(w.b, ',')
			}
			each(w, v.Index(i))
		}
		w.b = append(w.b, ']')
	}
}

func mapWrites(t reflect.Type) writes {
	if t.Key().Kind() != reflect.String {
		return asLibrary
	}
	each := typeWrites(t.Elem())
	return func(w *writer, v reflect.Value) {
		if v.IsNil() {
			w.b = append(w.b, "null"...)
			return
		}
		keys := v.MapKeys()
		sort.Slice(keys, func(i, k int) bool { return keys[i].String() < keys[k].String() })
		w.b = append(w.b, '{')
		for i, k := range keys {
			if i > 0 {
				w.b = append(w.b, ',')
			}
			w.text(k.String())
			w.b = append(w.b, ':')
			each(w, v.MapIndex(k))
		}
		w.b = append(w.b, '}')
	}
}

// field is a field as it is written.
type field struct {
	name  string // with quotes and colon
	plain string
	index []int
	depth int
	empty bool // left out when it is empty
	zero  bool // left out when it is zero
	write writes
}

func structWrites(t reflect.Type) writes {
	fields := fieldsOf(t, nil, map[reflect.Type]bool{})
	// Of two with one name the outer one is written.
	sort.SliceStable(fields, func(i, k int) bool { return fields[i].depth < fields[k].depth })
	var kept []field
	for _, f := range fields {
		if !slices.ContainsFunc(kept, func(o field) bool { return o.plain == f.plain }) {
			kept = append(kept, f)
		}
	}
	sort.Slice(kept, func(i, k int) bool { return slices.Compare(kept[i].index, kept[k].index) < 0 })
	return func(w *writer, v reflect.Value) {
		w.b = append(w.b, '{')
		first := true
		for i := range kept {
			f := &kept[i]
			value := v
			for _, k := range f.index {
				value = value.Field(k)
			}
			if f.empty && isEmpty(value) || f.zero && value.IsZero() {
				continue
			}
			if !first {
				w.b = append(w.b, ',')
			}
			first = false
			w.b = append(w.b, f.name...)
			f.write(w, value)
		}
		w.b = append(w.b, '}')
	}
}

func fieldsOf(t reflect.Type, index []int, met map[reflect.Type]bool) []field {
	var out []field
	for i := range t.NumField() {
		f := t.Field(i)
		tag, rest, _ := strings.Cut(f.Tag.Get("json"), ",")
		at := append(slices.Clone(index), i)
		if f.Anonymous && tag == "" && f.Type.Kind() == reflect.Struct {
			out = append(out, fieldsOf(f.Type, at, met)...)
			continue
		}
		if !f.IsExported() || tag == "-" {
			continue
		}
		if tag == "" {
			tag = f.Name
		}
		options := strings.Split(rest, ",")
		w := &writer{}
		w.text(tag)
		out = append(out, field{
			name: string(w.b) + ":", plain: tag, index: at, depth: len(at),
			empty: slices.Contains(options, "omitempty"), zero: slices.Contains(options, "omitzero"), write: typeWrites(f.Type),
		})
	}
	return out
}

func isEmpty(v reflect.Value) bool {
	switch v.Kind() {
	case reflect.Array, reflect.Map, reflect.Slice, reflect.String:
		return v.Len() == 0
	case reflect.Bool, reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64, reflect.Float64, reflect.Interface, reflect.Pointer:
		return v.IsZero()
	}
	return false
}

// text writes words, with what JSON or a page of HTML would mistake escaped.
func (w *writer) text(s string) {
	for i := range len(s) {
		if c := s[i]; c < ' ' || c > '~' || c == '"' || c == '\\' || c == '<' || c == '>' || c == '&' {
			raw, err := json.Marshal(s)
			if err != nil && w.err == nil {
				w.err = err
			}
			w.b = append(w.b, raw...)
			return
		}
	}
	w.b = append(w.b, '"')
	w.b = append(w.b, s...)
	w.b = append(w.b, '"')
}

// digits is how many digits of a number are sent.
const digits = 10

// tens are the powers of ten.
var tens = func() (out [digits + 4]float64) {
	out[0] = 1
	for i := 1; i < len(out); i++ {
		out[i] = out[i-1] * 10
	}
	return out
}()

// small is the size under which a number is written by the library: there the
// decimals that are kept are not its digits.
const small = 1e-3

func (w *writer) number(v float64) {
	size := math.Abs(v)
	switch {
	case math.IsNaN(v) || math.IsInf(v, 0):
		if w.err == nil {
			w.err = fmt.Errorf("%v cannot be sent as a number", v)
		}
	case v == math.Trunc(v) && size < 1e15:
		w.b = strconv.AppendInt(w.b, int64(v), 10) // 0 for -0
	case size < small || size >= tens[digits-1]:
		w.b = strconv.AppendFloat(w.b, v, 'g', digits, 64)
	default:
		w.decimal(v, size)
	}
}

// decimal writes a number between small and a thousand million with all its
// digits, those after the point up to the last that is not 0.
func (w *writer) decimal(v, size float64) {
	before := 1 // digits before the point; less than none are zeros behind it
	for size >= tens[before] {
		before++
	}
	for limit := 1.0; size < limit; limit /= 10 {
		before--
	}
	after := digits - before
	whole := uint64(math.Round(size * tens[after]))
	for ; after > 0 && whole%10 == 0; after-- {
		whole /= 10
	}
	if v < 0 {
		w.b = append(w.b, '-')
	}
	unit := uint64(tens[after])
	w.b = strconv.AppendUint(w.b, whole/unit, 10)
	if after == 0 {
		return
	}
	w.b = append(w.b, '.')
	rest := whole % unit
	for zeros := unit / 10; zeros > rest && zeros > 1; zeros /= 10 {
		w.b = append(w.b, '0')
	}
	w.b = strconv.AppendUint(w.b, rest, 10)
}
