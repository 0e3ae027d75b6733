package desk

import (
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"regexp"
	"strings"

	"github.com/labstack/echo/v5"
)

// Received opens what was sent as a file, an error when none was chosen. A large one lies on the disk.
func Received(c *echo.Context, field string) (file multipart.File, size int64, err error) {
	header, err := c.FormFile(field)
	if err != nil {
		return nil, 0, err
	}
	if header.Size == 0 {
		return nil, 0, errors.New("nothing is in it")
	}
	file, err = header.Open()
	return file, header.Size, err
}

// mostRead is the most of a file that is read whole.
const mostRead = 9 << 20

// Uploaded gives what was sent as a file, an error when none was chosen, or it is larger than any list.
func Uploaded(c *echo.Context, field string) ([]byte, error) {
	file, size, err := Received(c, field)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if size > mostRead {
		return nil, fmt.Errorf("it is larger than %d MB", mostRead>>20)
	}
	return io.ReadAll(file)
}

// AsFile says that a CSV follows, to be saved under a name.
func AsFile(c *echo.Context, name string) {
	h := c.Response().Header()
	h.Set(echo.HeaderContentType, "text/csv; charset=utf-8")
	h.Set(echo.HeaderContentDisposition, fmt.Sprintf("attachment; filename=%q", name))
}

var notInNames = regexp.MustCompile(`[^a-z0-9]+`)

// FileName is what a file of a box so called is named.
func FileName(name string) string {
	name = strings.Trim(notInNames.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if name == "" {
		return "box"
	}
	return name[:min(len(name), 60)]
}

// Chosen reads the list that was chosen to be brought in; such are its headings.
func Chosen(c *echo.Context, such string) ([]byte, error) {
	list, err := Uploaded(c, "list")
	if err != nil {
		return nil, echo.NewHTTPError(http.StatusBadRequest, "No list was chosen, or it is empty. Choose a CSV file "+
			"with headings such as "+such+".")
	}
	return list, nil
}
