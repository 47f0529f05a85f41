package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A clash is shown and nothing is moved; moved by keyboard it is gone. A visit is put in
// on the day proposed, inked, and cancelled with the message ready.
func TestTheDiaryByKeyboard(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/diary")
	u.sees("13 minutes short: 38 by road.")
	u.seesIn(".facts", "One clash.")

	clash := u.finds(".visit.clash .open", "11:10 Juniper")
	require.NoError(t, clash.Focus())
	u.key('m')
	u.seesIn("h2", "Juniper Lantern: the visit")
	u.types("Time", "12:00")
	u.presses("Keep it so")
	u.seesIn(".facts", "No clash.")

	pencil := u.finds(".visit.pencil .open", "Flint")
	require.NoError(t, pencil.Focus())
	u.key('i')
	u.seesIn(".facts", "Flint: in ink.")

	u.key('v')
	u.seesIn("h2", "Put in a visit")
	u.field("Horse").MustSelect("Wick")
	u.sees("Proposed:")
	u.presses("Keep it")
	u.seesIn(".visit .open", "Wick")
	require.NoError(t, u.click(u.finds(".visit .open", "Wick")))
	u.presses("Cancel the visit")
	u.presses("Cancel it")
	u.sees("Say why it is cancelled. The owner reads it.")
	u.types("Why it is cancelled", "The lane is flooded.")
	u.presses("Cancel it")
	u.sees("does not take place. The lane is flooded.")
	u.presses("Done")
	u.seesIn(".visit.gone", "Wick")
}

// An hour that no clock shows that day is a sentence beside the field, and what was typed
// stays.
func TestAVisitAtAnHourThatDoesNotExist(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.goes("/diary")
	u.presses("Put in a visit")
	u.field("Horse").MustSelect("Wick")
	u.sees("Proposed:")
	u.types("Day", "2027-03-28")
	u.types("Time", "01:30")
	u.types("What for", "an early one")
	u.presses("Keep it")
	u.sees("There is no 01:30 that day: the clocks go forward. Take 02:00.")
	assert.Equal(t, "an early one", u.field("What for").MustProperty("value").Str())
}

// The day stands on the phone without a signal, with what is in the truck.
func TestTheDayWithoutASignal(t *testing.T) {
	t.Parallel()
	y := farYard(t)
	u := y.atTheYard(412, 800) // the first page brings the day along
	y.mast.signal(false)
	u.goes("/day")
	u.sees("Leave by")
	u.seesIn(".stop", "Copperfield Moth")
	require.NoError(t, u.click(u.finds(".thing label", "^gloves$")))
	u.sees("1 of")
	u.goes("/day")
	u.sees("No signal. What you see was kept here")
	u.seesIn(".stop", "Juniper Lantern")
	u.sees("1 of")
	require.NoError(t, u.click(u.finds(".stop .line", "Juniper Lantern")))
	u.seesIn(".stop.open", "Check first")
}

// After a session the proposed day is taken with one tap, and the owner's page says it.
func TestTheNextVisitIsTakenAfterASession(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/horses")
	u.presses("Harvest Lark")
	u.presses("Sessions.*")
	require.NoError(t, u.click(u.finds("a[href$='/after']", ".")))
	u.sees("How it ended")
	u.sees("in pencil")
	u.presses("Put .* in the diary")
	u.sees("stands in the diary")
	u.presses("The owner's report")
	u.sees("The next visit is on")
}

// The day is one page on paper, with the times and the kit, without the tabs.
func TestTheDayIsOnePageOnPaper(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/day")
	u.sees("of driving")
	u.sees("In the truck")
	assert.Equal(t, 1, u.pages())
}

// A visit is dragged to another day.
func TestAVisitIsDraggedToAnotherDay(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 1400).signsInDemo()
	u.goes("/diary")
	u.seesIn(".facts", "One clash.")
	days := u.MustElements(".day")
	u.drags(u.finds(".visit.clash", "11:10 Juniper"), days[len(days)-1]) // to the last Sunday of the three weeks
	u.seesIn(".facts", "Juniper Lantern: moved to Sunday")
	u.seesIn(".facts", "No clash.")
}

// Drives are typed once, a round is kept, the trainer's own calendar is made and read by
// its address alone, and times from another calendar stand in the diary.
func TestRoadsRoundsAndCalendars(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 900).signsInDemo()
	u.goes("/diary/roads")
	u.sees("Where the yards lie")
	minutes := u.MustElement(".drives input")
	require.NoError(t, minutes.SelectAllText())
	require.NoError(t, minutes.Input("29"))
	require.NoError(t, u.click(u.finds("h2", "Minutes by road"))) // it is kept as the field is left
	u.presses("Add a round")
	u.presses("Keep it")
	u.sees("Give the round a name.")
	u.types("Name", "West round")
	u.presses("Keep it")
	u.sees("Kept.")

	u.presses("Make one of my diary")
	address := u.finds(".address", "/api/calendar/").MustText()
	text := u.MustEval(`async (at) => { const a = await fetch(at, { credentials: 'omit' }); return a.status + ' ' + (await a.text()) }`, address).Str()
	assert.Contains(t, text, "200 BEGIN:VCALENDAR")
	assert.Contains(t, text, "SUMMARY:Copperfield Moth")
	u.presses("Switch off")
	u.waits("the calendar to go", ".address", "", `(css) => document.querySelector(css) === null`)
	assert.Equal(t, 404, u.MustEval(`async (at) => (await fetch(at)).status`, address).Int())

	u.types("Times that are taken elsewhere", "no calendar at all")
	u.presses("Take them in")
	u.sees("This can't be read as a calendar")
	today := u.MustEval(`() => new Date().toISOString().slice(0, 10).replaceAll('-', '')`).Str()
	u.MustEval(`(text) => {
		const field = document.querySelector('form textarea')
		Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(field, text)
		field.dispatchEvent(new Event('input', { bubbles: true }))
	}`, "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Dentist\r\nDTSTART:"+today+"T140000\r\nDTEND:"+today+"T150000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")
	u.presses("Take them in")
	u.sees("1 taken times stand in the diary.")
	u.goes("/diary/roads")
	assert.Equal(t, "29", u.finds(".drives input", "").MustProperty("value").Str())
	u.seesIn("legend", "West round")
	u.goes("/diary")
	u.seesIn(".busy", "14:00 to 15:00 Dentist")
}

// The evening's letters are read before they go; who agreed is noted, and stops again. An
// owner's visits stand by themselves, and a message of a visit is ready to be sent.
func TestLettersOfTheEvening(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/diary/letters")
	u.sees("09:00: Bilberry at Tarn Side Livery")
	u.presses("Write them now")
	u.sees("Nothing to tell that was not told.")
	u.seesIn(".letter", "to maud@fallow.example, would have been sent. The visits go with it")
	u.presses("Stop the letters of Maud Sefton-Lyle")
	u.sees("No more letters go there.")
	u.MustElement("form select").MustSelect("Maud Sefton-Lyle")
	u.presses("Add")
	u.sees("Letters go only to who agreed. Ask first, then tick this.")
	u.presses("Was asked, and said yes")
	u.presses("Add")
	u.seesIn(".line", "Maud Sefton-Lyle")
	u.MustElement("form select").MustSelect("Corin Mabb, no address")
	u.presses("Was asked, and said yes")
	u.presses("Add")
	u.sees("No email address is written down for Corin Mabb. Write it down under People first.")

	u.goes("/people")
	u.presses("Visits to the horses of Maud Sefton-Lyle")
	u.sees("Only Maud Sefton-Lyle.")
	u.seesIn(".facts", "1 visit in ink")
	require.NoError(t, u.click(u.finds(".visit .open", "Bilberry")))
	u.presses("Tell the owner")
	u.sees("Bilberry: the next visit is on")
	u.sees("The appointment, for a calendar")
	u.presses("Show all")
	u.seesIn(".visit", "Juniper Lantern")
}
