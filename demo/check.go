package demo

// A Said is what the colleague said to one question of the check that is open in the demo review.
type Said struct{ Question, Verdict, Words string }

// The open check of the demo review: who was handed which version, what was said so far, and what is to be settled.
const (
	CheckedVersion = "Limits agreed"
	Checker        = "Sol Ferren"
	CheckNote      = "before it is run at all three"
	DemoNote       = "Does this word mean owners too? Two of the key studies use it for both."
	NotedTerm      = "farmworker*"
	SuggestedFor   = "agricultural labourer*"
	SuggestedText  = "agricultural laborer*"
	SuggestedWhy   = "as they spell it in the north"
)

// What the search of the demo review finds when it runs again, and who is told of it.
const (
	FoundLater  = 2    // works that Almagre comes to hold
	LaterYear   = 2024 // of that year
	ToldAddress = "sol@olmo.example"
)

// JudgedOfRound is how many of the works that a round brought are judged in the demo review.
const JudgedOfRound = 12

// CheckSaid are the questions that were answered.
var CheckSaid = []Said{
	{"translation", "suggest", "Kidney harm is left out with good reason; say in the report that it was tried."},
	{"operators", "fine", ""},
	{"spelling", "fine", ""},
}
