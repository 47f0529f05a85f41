package track

// A Day is one session's track with its local date.
type Day struct {
	ID      string  `json:"id,omitempty" doc:"of the session"`
	Date    string  `json:"date" format:"date" doc:"day of the session"`
	Started int64   `json:"started" doc:"when it began"`
	Handler string  `json:"handler,omitempty" doc:"who held the rope unless an entry says"`
	Core    string  `json:"core,omitempty" doc:"edition of the rules that it was begun with; empty: this one"`
	Track   []Entry `json:"track" doc:"the entries, in any order"`

	Fresh []string `json:"fresh,omitempty" doc:"steps whose measure or pass mark was changed since the day before: they begin again at tried"`
}
