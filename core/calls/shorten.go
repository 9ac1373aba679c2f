package calls

import (
	"bytes"
	"encoding/json"
	"strconv"
	"sync"
)

// answerDigits is how many digits of a number are sent: of a fence as long as
// a town a hundredth of a thousandth of a millimetre. What binary fractions
// drag behind them beyond that is noise, and was a fifth of every answer.
const answerDigits = 10

var buffers = sync.Pool{New: func() any { return new(bytes.Buffer) }}

// figures is what is mostly numbers, as it is sent.
func figures(v any) ([]byte, error) {
	buf := buffers.Get().(*bytes.Buffer)
	defer buffers.Put(buf)
	buf.Reset()
	if err := json.NewEncoder(buf).Encode(v); err != nil {
		return nil, err
	}
	return shorten(make([]byte, 0, buf.Len()), bytes.TrimRight(buf.Bytes(), "\n")), nil
}

// shorten appends a JSON document in which no number has more digits than are
// sent. Words stay as they are.
func shorten(to, doc []byte) []byte {
	for i := 0; i < len(doc); {
		switch b := doc[i]; {
		case b == '"':
			end := i + 1
			for doc[end] != '"' {
				if doc[end] == '\\' {
					end++
				}
				end++
			}
			to = append(to, doc[i:end+1]...)
			i = end + 1
		case b == '-' || b >= '0' && b <= '9':
			end := i + 1
			for end < len(doc) && isNumeral(doc[end]) {
				end++
			}
			to = appendShort(to, doc[i:end])
			i = end
		default:
			to = append(to, b)
			i++
		}
	}
	return to
}

func isNumeral(b byte) bool {
	return b >= '0' && b <= '9' || b == '.' || b == 'e' || b == 'E' || b == '-' || b == '+'
}

func appendShort(to, number []byte) []byte {
	if len(number) <= answerDigits+1 || bytes.IndexByte(number, '.') < 0 {
		return append(to, number...)
	}
	v, err := strconv.ParseFloat(string(number), 64)
	if err != nil {
		return append(to, number...)
	}
	return strconv.AppendFloat(to, v, 'g', answerDigits, 64)
}
