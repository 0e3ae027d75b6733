module brevium

go 1.26.8

require (
	codeberg.org/go-pdf/fpdf v0.12.0
	github.com/adrg/xdg v0.5.3
	github.com/alexedwards/argon2id v1.0.0
	github.com/alexedwards/scs/v2 v2.9.0
	github.com/arran4/golang-ical v0.3.4
	github.com/chromedp/cdproto v0.159.0
	github.com/chromedp/chromedp v0.23.0
	github.com/ebitengine/hideconsole v1.0.0
	github.com/emersion/go-ical v0.0.0-20250329121855-f41e73efc392
	github.com/evanw/esbuild v0.28.2
	github.com/go-text/typesetting v0.3.5
	github.com/gofrs/flock v0.13.2
	github.com/hashicorp/golang-lru/v2 v2.0.7
	github.com/labstack/echo/v5 v5.4.4
	github.com/pdfcpu/pdfcpu v0.15.0
	github.com/pkg/browser v0.0.0-20240102092130-5ac0b6a4141c
	github.com/pressly/goose/v3 v3.29.0
	github.com/shirou/gopsutil/v4 v4.26.10
	github.com/spf13/cobra v1.10.2
	github.com/tc-hib/winres v0.2.1
	golang.org/x/image v0.48.0
	golang.org/x/sync v0.25.0
	golang.org/x/sys v0.50.0
	golang.org/x/term v0.48.0
	golang.org/x/time v0.16.0
	gonum.org/v1/gonum v0.17.0
	modernc.org/sqlite v1.62.0
	rsc.io/qr v0.2.0
)

require (
	github.com/BurntSushi/toml v1.4.1-0.20240526193622-a339e1f7089c // indirect
	github.com/clipperhouse/uax29/v2 v2.7.0 // indirect
	github.com/dustin/go-humanize v1.1.0 // indirect
	github.com/ebitengine/purego v0.11.2 // indirect
	github.com/go-json-experiment/json v0.0.0-20260213210345-44df1a37e875 // indirect
	github.com/go-ole/go-ole v1.2.6 // indirect
	github.com/google/uuid v1.6.0 // indirect
	github.com/hhrutter/tiff v1.0.6 // indirect
	github.com/inconshreveable/mousetrap v1.1.0 // indirect
	github.com/mattn/go-isatty v0.0.24 // indirect
	github.com/mattn/go-runewidth v0.0.27 // indirect
	github.com/mfridman/interpolate v0.0.2 // indirect
	github.com/ncruces/go-strftime v1.1.0 // indirect
	github.com/nfnt/resize v0.0.0-20180221191011-83c6a9932646 // indirect
	github.com/power-devops/perfstat v0.0.0-20260805114148-88456608a4f6 // indirect
	github.com/remyoudompheng/bigfft v0.0.0-20230129092748-24d4a6f8daec // indirect
	github.com/sethvargo/go-retry v0.5.0 // indirect
	github.com/spf13/pflag v1.0.10 // indirect
	github.com/teambition/rrule-go v1.8.2 // indirect
	github.com/yusufpapurcu/wmi v1.2.4 // indirect
	go.uber.org/multierr v1.11.0 // indirect
	go.yaml.in/yaml/v3 v3.0.5 // indirect
	golang.org/x/crypto v0.58.0 // indirect
	golang.org/x/exp/typeparams v0.0.0-20231108232855-2478ac86f678 // indirect
	golang.org/x/mod v0.42.0 // indirect
	golang.org/x/text v0.44.0 // indirect
	golang.org/x/tools v0.52.0 // indirect
	honnef.co/go/tools v0.8.2 // indirect
	modernc.org/libc v1.80.1 // indirect
	modernc.org/mathutil v1.7.1 // indirect
	modernc.org/memory v1.12.1 // indirect
)

tool honnef.co/go/tools/cmd/staticcheck
