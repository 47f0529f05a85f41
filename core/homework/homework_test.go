package homework_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/clearance"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// logged is a practice of the board by ines.
func logged(on string, arousal int, answers ...string) homework.Log {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		panic(err)
	}
	l := homework.Log{ID: "log-" + on, Person: "ines", Step: "board.stand", On: on, At: day.Add(17 * time.Hour).UnixMilli(), Done: true, Minutes: 10, Arousal: horse.ArousalOf(arousal)}
	for _, a := range answers {
		var said clearance.Said
		if err := said.UnmarshalText([]byte(a)); err != nil {
			panic(err)
		}
		l.Answers = append(l.Answers, said)
	}
	return l
}

func ExampleStand() {
	s := homework.Stand([]homework.Log{logged("2026-06-02", 1, "yes", "yes"), logged("2026-06-03", 3)}, nil)
	fmt.Println(s.Done(), "days, stopped:", s.Stops[0].Step, s.Stops[0].Arousal)
	s = homework.Stand(s.Logs, []homework.Resumed{{Log: "log-2026-06-03", Reason: "I was there"}})
	fmt.Println("open stops:", len(s.Stops))
	// Output:
	// 2 days, stopped: board.stand 3
	// open stops: 0
}

func TestWhatCanBeWrittenDown(t *testing.T) {
	now := time.Date(2026, 6, 3, 19, 0, 0, 0, time.UTC)
	for _, c := range []struct {
		name   string
		change func(*homework.Log)
		field  string
	}{
		{"as it is", func(*homework.Log) {}, ""},
		{"not done, and nothing else", func(l *homework.Log) { *l = homework.Log{ID: l.ID, Step: l.Step, On: l.On, At: l.At} }, ""},
		{"tomorrow", func(l *homework.Log) { l.On = "2026-06-04" }, "on"},
		{"a clock ten minutes ahead", func(l *homework.Log) { l.At = now.Add(10 * time.Minute).UnixMilli() }, ""},
		{"a clock further ahead", func(l *homework.Log) { l.At = now.Add(10*time.Minute + time.Millisecond).UnixMilli() }, "on"},
		{"60 days ago", func(l *homework.Log) { l.On = "2026-04-04" }, ""},
		{"61 days ago", func(l *homework.Log) { l.On = "2026-04-03" }, "on"},
		{"no date", func(l *homework.Log) { l.On = "last week" }, "on"},
		{"no minutes", func(l *homework.Log) { l.Minutes = 0 }, "minutes"},
		{"a minute", func(l *homework.Log) { l.Minutes = 1 }, ""},
		{"three hours", func(l *homework.Log) { l.Minutes = 180 }, ""},
		{"more", func(l *homework.Log) { l.Minutes = 181 }, "minutes"},
		{"no word of the horse", func(l *homework.Log) { l.Arousal = horse.Arousal{} }, "arousal"},
		{"heavier first", func(l *homework.Log) {
			l.Lightest, l.Firmest = homework.Feel{}.All()[2], homework.Feel{}.All()[0]
		}, "firmest"},
		{"the same feel", func(l *homework.Log) {
			l.Lightest, l.Firmest = homework.Feel{}.All()[1], homework.Feel{}.All()[1]
		}, ""},
	} {
		l := logged("2026-06-03", 1)
		c.change(&l)
		field := ""
		for _, f := range l.Check("2026-06-03", now) {
			field = f.Field
			assert.NotEmpty(t, f.Say, c.name)
		}
		assert.Equal(t, c.field, field, c.name)
	}
}

// A logged 3 or 4 stops homework for that step (part 7); a 2 does not.
func TestOverTheLineStops(t *testing.T) {
	for arousal, stops := range map[int]bool{0: false, 1: false, 2: false, 3: true, 4: true} {
		s := homework.Stand([]homework.Log{logged("2026-06-03", arousal)}, nil)
		_, stopped := s.Stopped("board.stand")
		assert.Equal(t, stops, stopped, arousal)
		_, other := s.Stopped("lead.halt")
		assert.False(t, other, "another step goes on")
	}
	wrong, right := logged("2026-06-03", 4), logged("2026-06-03", 1)
	right.ID, right.Replaces = "right", wrong.ID
	assert.Empty(t, homework.Stand([]homework.Log{wrong, right}, nil).Stops, "a slip of the finger is put right")

	notDone := logged("2026-06-03", 4)
	notDone.Done = false
	assert.Empty(t, homework.Stand([]homework.Log{notDone}, nil).Stops)
}

func TestTwoYesOnALaterDayKeepAMetStep(t *testing.T) {
	met := func(state horse.StepState) []arena.Known {
		return []arena.Known{{Ask: horse.Ask{Step: "board.stand"}, State: state, Last: "2026-06-02"}}
	}
	for _, c := range []struct {
		name  string
		state horse.StepState
		log   homework.Log
		want  horse.StepState
	}{
		{"two yes the day after", horse.Met, logged("2026-06-03", 1, "yes", "yes"), horse.Kept},
		{"two yes the same day", horse.Met, logged("2026-06-02", 1, "yes", "yes"), horse.Met},
		{"one yes", horse.Met, logged("2026-06-03", 1, "yes"), horse.Met},
		{"yes and nearly", horse.Met, logged("2026-06-03", 1, "yes", "nearly"), horse.Met},
		{"two yes, over the line", horse.Met, logged("2026-06-03", 3, "yes", "yes"), horse.Met},
		{"it had slipped", horse.Slipped, logged("2026-06-03", 1, "yes", "yes"), horse.Slipped},
		{"never met", horse.Tried, logged("2026-06-03", 1, "yes", "yes"), horse.Tried},
	} {
		kept := homework.Stand([]homework.Log{c.log}, nil).Keep(met(c.state))
		assert.Equal(t, c.want, kept[0].State, c.name)
		if c.want == horse.Kept {
			assert.Equal(t, "known.home", kept[0].Says().Key)
		}
	}
}

// Whatever was logged, in whatever order it arrived, comes to the same; and a stop
// that nobody lifted never goes away.
func TestTheOrderOfArrivalDoesNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var logs []homework.Log
		for i := range rapid.IntRange(1, 8).Draw(t, "logs") {
			l := logged(fmt.Sprintf("2026-06-%02d", rapid.IntRange(1, 20).Draw(t, "day")), rapid.IntRange(0, 4).Draw(t, "arousal"))
			l.ID, l.At = fmt.Sprint(i), l.At+int64(i)
			logs = append(logs, l)
		}
		one := homework.Stand(logs, nil)
		two := homework.Stand(rapid.Permutation(logs).Draw(t, "order"), nil)
		assert.Equal(t, one, two)
		worst := 0
		for _, l := range logs {
			worst = max(worst, l.Arousal.Int())
		}
		assert.Equal(t, worst >= 3, len(one.Stops) > 0)
		days, done := map[string]bool{}, one.Done()
		for _, l := range logs {
			days[l.On] = true
		}
		assert.Equal(t, len(days), done)
	})
}

func TestWhatWasPractisedLately(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	s := homework.Stand([]homework.Log{logged("2026-06-02", 1), logged("2026-06-03", 1), {ID: "x", On: "2026-06-03", Done: true, Minutes: 5, Arousal: horse.ArousalOf(2)}, {ID: "y", On: "2026-06-05"}}, nil)
	for today, says := range map[string]string{
		"2026-06-03": "At home today: 15 min, tense", "2026-06-04": "At home yesterday: 15 min, tense", "2026-06-05": "",
	} {
		m, ok := s.Lately(today)
		assert.Equal(t, says != "", ok)
		if ok {
			assert.Equal(t, says, book.Say(m))
		}
	}
	_, ok := homework.Standing{}.Lately("2026-06-03")
	assert.False(t, ok)
}
