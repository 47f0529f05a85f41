package phrase

import "encoding/json"

// What an argument is besides a plain value is written beside it, so that a
// message says the same after it was kept or sent.
const (
	asSided   = "sided"
	asSlotted = "slotted"
	asDate    = "date"
)

// MarshalJSON writes the arguments with what they are.
func (a Args) MarshalJSON() ([]byte, error) {
	if a == nil {
		return []byte("null"), nil
	}
	out := make(map[string]any, len(a))
	for name, v := range a {
		out[name] = tagged(v)
	}
	return json.Marshal(out)
}

func tagged(v any) any {
	switch v := v.(type) {
	case Sided:
		return map[string]string{asSided: string(v)}
	case Slotted:
		return map[string]string{asSlotted: string(v)}
	case Date:
		return map[string]string{asDate: string(v)}
	case []Slotted:
		list := make([]any, len(v))
		for i, s := range v {
			list[i] = tagged(s)
		}
		return list
	}
	return v
}

// UnmarshalJSON reads arguments as MarshalJSON wrote them.
func (a *Args) UnmarshalJSON(text []byte) error {
	var raw map[string]any
	if err := json.Unmarshal(text, &raw); err != nil {
		return err
	}
	if raw == nil {
		*a = nil
		return nil
	}
	*a = make(Args, len(raw))
	for name, v := range raw {
		(*a)[name] = untagged(v)
	}
	return nil
}

func untagged(v any) any {
	switch v := v.(type) {
	case []any:
		return untaggedList(v)
	case map[string]any:
		if len(v) == 1 {
			for tag, text := range v {
				said, _ := text.(string)
				switch tag {
				case asSided:
					return Sided(said)
				case asSlotted:
					return Slotted(said)
				case asDate:
					return Date(said)
				}
			}
		}
		if key, ok := v["key"].(string); ok {
			m := Message{Key: key}
			if args, ok := v["args"].(map[string]any); ok {
				m.Args = make(Args, len(args))
				for name, arg := range args {
					m.Args[name] = untagged(arg)
				}
			}
			return m
		}
	}
	return v
}

func untaggedList(v []any) any {
	var messages []Message
	var slotted []Slotted
	var words []string
	for _, one := range v {
		switch one := untagged(one).(type) {
		case Message:
			messages = append(messages, one)
		case Slotted:
			slotted = append(slotted, one)
		case string:
			words = append(words, one)
		}
	}
	switch len(v) {
	case len(messages):
		return messages
	case len(slotted):
		return slotted
	case len(words):
		return words
	}
	return v
}
