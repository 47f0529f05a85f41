package calendar

import (
	"bytes"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func in(t testing.TB, name string) *time.Location {
	zone, err := time.LoadLocation(name)
	require.NoError(t, err)
	return zone
}

func written(t require.TestingT, events []Event) string {
	var out bytes.Buffer
	require.NoError(t, Write(&out, "Harrow Groundwork", events))
	return out.String()
}

// A thousand diaries, in three zones, around both changes of the clocks, come out of an
// independent parser as they went in.
func TestDiariesComeBackEqual(t *testing.T) {
	zones := []*time.Location{in(t, "Europe/London"), in(t, "America/Denver"), in(t, "Australia/Lord_Howe")}
	changes := []time.Time{ // around which the times lie
		time.Date(2026, 3, 29, 1, 0, 0, 0, time.UTC), time.Date(2026, 10, 25, 1, 0, 0, 0, time.UTC), time.Date(2026, 3, 8, 9, 0, 0, 0, time.UTC),
		time.Date(2026, 11, 1, 8, 0, 0, 0, time.UTC), time.Date(2026, 4, 4, 15, 0, 0, 0, time.UTC), time.Date(2026, 10, 3, 15, 30, 0, 0, time.UTC),
	}
	text := rapid.StringMatching(`[a-zA-Z ,;:\\"\nåéß漢✓-]{0,90}`)
	runs := 0
	check := func(t *rapid.T) {
		runs++
		var events []Event
		for i := range rapid.IntRange(0, 12).Draw(t, "n") {
			e := Event{
				UID: fmt.Sprintf("%d@diary", i), Seq: rapid.IntRange(0, 99).Draw(t, "seq"), Stamp: time.Unix(1_790_000_000, 0),
				Title: strings.TrimSpace(text.Draw(t, "title")), Text: text.Draw(t, "text"), Place: text.Draw(t, "place"), Cancelled: rapid.Bool().Draw(t, "cancelled"),
			}
			if rapid.IntRange(0, 3).Draw(t, "all day") == 0 {
				e.Day = time.Date(2026, 1, 1+rapid.IntRange(0, 364).Draw(t, "day"), 0, 0, 0, 0, time.UTC).Format(time.DateOnly)
			} else {
				zone := rapid.SampledFrom(zones).Draw(t, "zone")
				around := rapid.SampledFrom(changes).Draw(t, "around")
				e.Start = around.Add(time.Duration(rapid.IntRange(-2880, 2880).Draw(t, "minutes")) * time.Minute).In(zone)
				e.End = e.Start.Add(time.Duration(rapid.IntRange(5, 600).Draw(t, "for")) * time.Minute)
			}
			events = append(events, e)
		}
		plain := written(t, events)
		for line := range strings.SplitSeq(strings.TrimSuffix(plain, "\r\n"), "\r\n") {
			require.LessOrEqual(t, len(line), 75, line)
			require.NotContains(t, line, "\n")
		}
		cal, err := ics.ParseCalendar(strings.NewReader(plain))
		require.NoError(t, err)
		back := cal.Events()
		require.Len(t, back, len(events))
		for i, e := range events {
			b := back[i]
			value := func(p ics.ComponentProperty) string {
				if got := b.GetProperty(p); got != nil {
					return got.Value
				}
				return ""
			}
			require.Equal(t, e.UID, b.Id())
			require.Equal(t, e.Title, value(ics.ComponentPropertySummary))
			require.Equal(t, e.Text, value(ics.ComponentPropertyDescription))
			require.Equal(t, e.Place, value(ics.ComponentPropertyLocation))
			require.Equal(t, fmt.Sprint(e.Seq), value(ics.ComponentPropertySequence))
			require.Equal(t, e.Cancelled, value(ics.ComponentPropertyStatus) == "CANCELLED")
			if e.Day != "" {
				day, err := b.GetAllDayStartAt()
				require.NoError(t, err)
				require.Equal(t, e.Day, day.Format(time.DateOnly))
				continue
			}
			start, err := b.GetStartAt()
			require.NoError(t, err)
			end, err := b.GetEndAt()
			require.NoError(t, err)
			require.True(t, e.Start.Equal(start), "%v came back as %v", e.Start, start)
			require.True(t, e.End.Equal(end), "%v came back as %v", e.End, end)
		}
	}
	for runs < 1000 {
		rapid.Check(t, check)
	}
}

// What RFC 5545 asks for, by its sections.
func TestACalendarIsAsRFC5545HasIt(t *testing.T) {
	zone := in(t, "Europe/London")
	start := time.Date(2026, 11, 27, 8, 40, 0, 0, zone)
	text := written(t, []Event{{UID: "a@b", Seq: 3, Stamp: start, Title: "Moth; stand, then side", Start: start, End: start.Add(45 * time.Minute)}, {UID: "d@b", Stamp: start, Title: "Teeth", Day: "2026-12-03"}})
	for _, line := range []string{
		"BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Ivory Bridge//Diary//EN", "METHOD:PUBLISH", // 3.4, 3.7
		"BEGIN:VTIMEZONE", "TZID:Europe/London", "BEGIN:STANDARD", "DTSTART:20261025T020000", "TZOFFSETFROM:+0100", "TZOFFSETTO:+0000", "END:VTIMEZONE", // 3.6.5
		"UID:a@b", "SEQUENCE:3", "DTSTAMP:20261127T084000Z", "DTSTART;TZID=Europe/London:20261127T084000", "DTEND;TZID=Europe/London:20261127T092500", // 3.6.1
		`SUMMARY:Moth\; stand\, then side`, // 3.3.11
		"DTSTART;VALUE=DATE:20261203", "DTEND;VALUE=DATE:20261204", "END:VCALENDAR",
	} {
		assert.Contains(t, text, line+"\r\n")
	}
	assert.Equal(t, strings.Count(text, "\n"), strings.Count(text, "\r\n"), "every line ends with both")
	again := time.Date(2026, 10, 25, 1, 30, 0, 0, time.UTC).In(zone) // the second 01:30
	assert.Contains(t, written(t, []Event{{UID: "x", Stamp: start, Start: again, End: again.Add(time.Hour)}}), "DTSTART:20261025T013000Z")
	assert.Contains(t, written(t, nil), "BEGIN:VCALENDAR", "an empty diary is a calendar as well")
}

func TestTimesThatAreTaken(t *testing.T) {
	zone := in(t, "Europe/London")
	since, until := time.Date(2026, 3, 20, 0, 0, 0, 0, zone), time.Date(2026, 4, 20, 0, 0, 0, 0, zone)
	event := func(lines ...string) string {
		return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Dentist\r\n" + strings.Join(lines, "\r\n") + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
	}
	read := func(lines ...string) (told []string) {
		list, err := Read(strings.NewReader(event(lines...)), zone, since, until)
		require.NoError(t, err)
		for _, x := range list {
			told = append(told, x.From.In(zone).Format("02.01. 15:04")+"-"+x.To.In(zone).Format("15:04")+" "+x.What)
		}
		return told
	}
	assert.Equal(t, []string{"27.03. 09:00-10:00 Dentist"}, read("DTSTART:20260327T090000", "DTEND:20260327T100000"), "without a zone it is here")
	assert.Equal(t, []string{"27.03. 09:00-09:30 Dentist"}, read("DTSTART:20260327T090000Z", "DURATION:PT30M"))
	assert.Equal(t, []string{"26.03. 09:00-10:00 Dentist", "02.04. 09:00-10:00 Dentist", "16.04. 09:00-10:00 Dentist"},
		read("DTSTART;TZID=Europe/London:20260305T090000", "DTEND;TZID=Europe/London:20260305T100000", "RRULE:FREQ=WEEKLY", "EXDATE;TZID=Europe/London:20260409T090000"), "by the clock on the wall, over the change")
	assert.Empty(t, read("DTSTART;VALUE=DATE:20260327", "DTEND;VALUE=DATE:20260328"))
	assert.Empty(t, read("DTSTART:20260327T090000", "DTEND:20260327T100000", "STATUS:CANCELLED"))
	assert.Empty(t, read("DTSTART:20260327T090000", "DTEND:20260327T100000", "TRANSP:TRANSPARENT"))
	assert.Empty(t, read("DTSTART:20260427T090000", "DTEND:20260427T100000"), "later than was asked")
	for _, text := range []string{"", "hello", "BEGIN:VCALENDAR", event("DTSTART:soon", "DTEND:20260327T100000"), event("DTSTART:20260327T090000", "DTEND:20260327T100000", "RRULE:FREQ=SOMETIMES")} {
		_, err := Read(strings.NewReader(text), zone, since, until)
		assert.Error(t, err, text)
	}
	_, err := Read(strings.NewReader(event("DTSTART:20260320T090000", "DTEND:20260320T090100", "RRULE:FREQ=MINUTELY")), zone, since, until)
	assert.ErrorContains(t, err, "more than 5000")
}

func FuzzReadsAnyText(f *testing.F) {
	f.Add("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20260327T090000\r\nDTEND:20260327T100000\r\nRRULE:FREQ=DAILY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")
	since := time.Date(2026, 3, 20, 0, 0, 0, 0, time.UTC)
	f.Fuzz(func(_ *testing.T, text string) {
		_, _ = Read(strings.NewReader(text), time.UTC, since, since.AddDate(0, 1, 0)) // it must come to an end
	})
}

func ExampleWrite() {
	start := time.Date(2026, 11, 27, 8, 40, 0, 0, time.UTC)
	if err := Write(os.Stdout, "Diary", []Event{{UID: "1@diary", Stamp: start, Title: "Moth", Start: start, End: start.Add(45 * time.Minute)}}); err != nil {
		fmt.Println(err)
	}
}
