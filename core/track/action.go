package track

import (
	"ivorybridge/core/horse"
)

type actions struct{}

func (actions) Words() []string {
	return []string{
		"same", "up", "down", "other side", "wait", "hold", "retreat", "settle by feet", "refocus",
		"get down", "change ask", "make safe", "end ask", "end session",
	}
}

// Action is what the advisor says to do (part 6).
type Action = horse.Word[actions]

// The actions.
var (
	Same       = horse.MustWord[actions]("same")
	Up         = horse.MustWord[actions]("up")
	Down       = horse.MustWord[actions]("down")
	OtherSide  = horse.MustWord[actions]("other side")
	Wait       = horse.MustWord[actions]("wait")
	Refocus    = horse.MustWord[actions]("refocus")
	ChangeAsk  = horse.MustWord[actions]("change ask")
	MakeSafe   = horse.MustWord[actions]("make safe")
	EndAsk     = horse.MustWord[actions]("end ask")
	EndSession = horse.MustWord[actions]("end session")

	Hold         = horse.MustWord[actions]("hold")
	Retreat      = horse.MustWord[actions]("retreat")
	SettleByFeet = horse.MustWord[actions]("settle by feet")
	GetDown      = horse.MustWord[actions]("get down")
)
