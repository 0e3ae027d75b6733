package advice

// What the tests of this room look at from outside.
var (
	UsesOf   = usesOf
	Greatest = greatest
	Work     = work
)
