package casefile

import (
	"ivorybridge/core/attention"
	"ivorybridge/core/history"
)

// Attention lists what wants attention, the most pressing first.
func (f *File) Attention() []attention.Note {
	newest := history.Day{}
	if n := len(f.in.History.Days); n > 0 {
		newest = f.in.History.Days[n-1]
	}
	return attention.Of(attention.Facts{
		Today: f.in.Today, Finished: f.in.Finished != "", NeededBy: f.in.NeededBy, Assessed: f.Assessed != "", Baseline: f.Account().Baseline.Asked(),
		Newest: newest, DaysOff: f.DaysOff, Referrals: f.Referrals, Rechecks: f.Result.Rechecks, Bridge: f.Bridge, Plan: f.glance,
	})
}
