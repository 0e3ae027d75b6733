package store

import "context"

type whoKey struct{}

// As gives a context in which changes are made by somebody.
func As(ctx context.Context, who string) context.Context {
	if who == "" {
		return ctx
	}
	return context.WithValue(ctx, whoKey{}, who)
}

// Who is who makes changes in a context; "" where nobody is asked.
func Who(ctx context.Context) string {
	who, _ := ctx.Value(whoKey{}).(string)
	return who
}
