package track

import (
	"fmt"

	"ivorybridge/core/horse"
)

type walkButtons struct{}

func (walkButtons) Words() []string {
	return []string{"set off", "turned", "stopped", "stood", "stood, mind elsewhere", "broke", "moving", "trouble", "spot", "home"}
}

// Button is one of those that are pressed on an outing (part 7).
type Button = horse.Word[walkButtons]

// The buttons.
var (
	SetOff    = horse.MustWord[walkButtons]("set off")
	Turned    = horse.MustWord[walkButtons]("turned")
	StoppedAt = horse.MustWord[walkButtons]("stopped")
	Stood     = horse.MustWord[walkButtons]("stood")
	Elsewhere = horse.MustWord[walkButtons]("stood, mind elsewhere")
	Broke     = horse.MustWord[walkButtons]("broke")
	Moving    = horse.MustWord[walkButtons]("moving")
	Trouble   = horse.MustWord[walkButtons]("trouble")
	PassedBy  = horse.MustWord[walkButtons]("spot")
	AtHome    = horse.MustWord[walkButtons]("home")
)

// A Walk is one button of an outing; its time is its entry's.
type Walk struct {
	Button  Button        `json:"button" doc:"what was pressed"`
	Road    *Road         `json:"road,omitempty" doc:"with set off: how it is planned"`
	Spot    string        `json:"spot,omitempty" maxLength:"60" doc:"with spot: its name"`
	Tries   int           `json:"tries,omitempty" minimum:"0" maximum:"99" doc:"with spot: how often it tried to turn to it"`
	Heading horse.Heading `json:"heading,omitzero" doc:"with spot or trouble: where it was going"`
}

// Road is how an outing is planned: the way out in minutes, or in metres at a pace.
type Road struct {
	Minutes float64 `json:"minutes,omitempty" minimum:"0" maximum:"300" doc:"of the way out"`
	Metres  int     `json:"metres,omitempty" minimum:"0" maximum:"30000" doc:"of the way out"`
	Pace    float64 `json:"pace,omitempty" minimum:"0" maximum:"200" doc:"metres a minute"`
	Moving  float64 `json:"moving,omitempty" minimum:"0" maximum:"300" doc:"minutes of moving on the way home; 0: as the way out"`
	Stand   int     `json:"stand,omitempty" minimum:"0" maximum:"600" doc:"seconds of a stand; 0: 45"`
	Plain   int     `json:"plain,omitempty" minimum:"0" maximum:"100" doc:"so many plain stops, the standing shared among them; 0: as many as are needed"`
	NoBack  bool    `json:"no_back,omitempty" doc:"without back-up stops"`
	Ridden  bool    `json:"ridden,omitempty" doc:"under a rider; else in hand"`
}

// Check says what is wrong with a button, or nil.
func (w Walk) Check() error {
	switch {
	case w.Button.IsZero():
		return fmt.Errorf("a walk needs its button")
	case w.Button == SetOff && w.Road == nil:
		return fmt.Errorf("setting off needs the road that is planned")
	case w.Button == PassedBy && w.Spot == "":
		return fmt.Errorf("a spot needs its name")
	case w.Road != nil:
		return w.Road.Check()
	}
	return nil
}

// Check says what is wrong with a road, or nil.
func (r Road) Check() error {
	switch {
	case r.Minutes < 0 || r.Metres < 0 || r.Pace < 0 || r.Moving < 0 || r.Stand < 0 || r.Plain < 0:
		return fmt.Errorf("a road's numbers are 0 or more")
	case r.Minutes == 0 && r.Metres == 0:
		return fmt.Errorf("a road of 0 m is no way out: give its minutes, or how far it is and the pace")
	case r.Minutes == 0 && r.Pace == 0:
		return fmt.Errorf("how far it is needs a pace: in hand a horse walks some 80 m, 260 ft, a minute")
	case r.Minutes > 300 || r.Metres > 30_000 || r.Moving > 300 || r.Pace > 200:
		return fmt.Errorf("that is too far for an outing: 300 minutes and 30 km, 18 miles, at most")
	case r.Stand != 0 && (r.Stand < 5 || r.Stand > 600):
		return fmt.Errorf("a stand lasts from 5 seconds to 10 minutes")
	case r.Plain > 100:
		return fmt.Errorf("that is more stops than anybody makes: 100 at most")
	}
	return nil
}
