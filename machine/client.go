package machine

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"
)

// Client talks to a machine at an address, simulated or real.
type Client struct {
	Base string // http://127.0.0.1:8418
}

var caller = &http.Client{Timeout: 5 * time.Second, CheckRedirect: func(*http.Request, []*http.Request) error {
	return http.ErrUseLastResponse
}}

// call asks the machine for something. What it refuses is a Refused.
func (c *Client) call(ctx context.Context, method, path, kind string, body []byte) ([]byte, error) {
	req, err := http.NewRequestWithContext(ctx, method, strings.TrimRight(c.Base, "/")+path, bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	if kind != "" {
		req.Header.Set("Content-Type", kind)
	}
	r, err := caller.Do(req)
	if err != nil {
		return nil, fmt.Errorf("the machine at %s doesn't answer: is it switched on? (%w)", c.Base, err)
	}
	defer r.Body.Close()
	data, err := io.ReadAll(io.LimitReader(r.Body, 2*MostBytes))
	if err != nil {
		return nil, fmt.Errorf("the machine at %s broke off: %w", c.Base, err)
	}
	if r.StatusCode < 400 {
		return data, nil
	}
	no := new(Refused)
	if json.Unmarshal(data, no) != nil || len(no.Why) == 0 {
		no.Why = []string{fmt.Sprintf("The machine answered %s.", r.Status)}
	}
	return nil, no
}

func (c *Client) stateOf(data []byte, err error) (s State, _ error) {
	if err != nil {
		return s, err
	}
	if err := json.Unmarshal(data, &s); err != nil {
		return s, fmt.Errorf("what answers at %s is not a cutting machine: %w", c.Base, err)
	}
	return s, nil
}

// State asks what the machine is doing.
func (c *Client) State(ctx context.Context) (State, error) {
	return c.stateOf(c.call(ctx, "GET", "/state", "", nil))
}

// Send gives it a job.
func (c *Client) Send(ctx context.Context, kind string, job []byte) (State, error) {
	return c.stateOf(c.call(ctx, "POST", "/job", kind, job))
}

// Press presses one of its buttons.
func (c *Client) Press(ctx context.Context, button string) (State, error) {
	return c.stateOf(c.call(ctx, "POST", "/"+button, "", nil))
}

// Picture asks for the bed as it is drawn now.
func (c *Client) Picture(ctx context.Context) ([]byte, error) {
	return c.call(ctx, "GET", "/path.svg", "", nil)
}
