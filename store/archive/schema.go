package archive

import (
	"encoding/json"
	"io"
)

// schema writes the JSON Schema of practice.json, as the database's own schema has it.
func (w *writer) schema(to io.Writer) error {
	type object = map[string]any
	list := object{}
	for _, t := range w.tables {
		properties := object{}
		var all []string
		for _, c := range t.out() {
			switch {
			case c.json:
				properties[c.name] = object{"description": "JSON, as the product keeps it"}
			case c.kind == "INTEGER":
				properties[c.name] = object{"type": nullable("integer", c)}
			case c.kind == "REAL":
				properties[c.name] = object{"type": nullable("number", c)}
			default:
				properties[c.name] = object{"type": nullable("string", c)}
			}
			all = append(all, c.name)
		}
		list[t.name] = object{"type": "array", "items": object{"type": "object", "properties": properties, "required": all, "additionalProperties": false}}
	}
	enc := json.NewEncoder(to)
	enc.SetIndent("", " ")
	return enc.Encode(object{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A practice, taken out whole", "type": "object",
		"required": []string{"format", "version", "schema", "scope", "made_at", "tables"},
		"properties": object{
			"format":  object{"const": Format},
			"version": object{"const": Version, "description": "of this form"},
			"schema":  object{"type": "integer", "description": "version of the tables"},
			"scope":   object{"enum": []string{scopePractice, scopeHorses}},
			"made_at": object{"type": "string", "format": "date-time"},
			"tables":  object{"type": "object", "properties": list, "additionalProperties": false},
		},
		"additionalProperties": false,
	})
}

func nullable(kind string, c column) any {
	if c.needed {
		return kind
	}
	return []string{kind, "null"}
}
