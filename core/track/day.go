package track

// A Day is one session's track with its local date.
type Day struct {
	ID      string  `json:"id,omitempty" doc:"of the session"`
	Date    string  `json:"date" format:"date"`
	Started int64   `json:"started"`
	Handler string  `json:"handler,omitempty"`
	Track   []Entry `json:"track"`

	Fresh []string `json:"fresh,omitempty" doc:"steps whose measure or pass mark was changed since the day before: they begin again at tried"`
}
