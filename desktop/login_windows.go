package desktop

import (
	"errors"

	"golang.org/x/sys/windows/registry"
)

const atLogin = `Software\Microsoft\Windows\CurrentVersion\Run`

func startsAtLogin() bool {
	k, err := registry.OpenKey(registry.CURRENT_USER, atLogin, registry.QUERY_VALUE)
	if err != nil {
		return false
	}
	defer k.Close()
	_, _, err = k.GetStringValue("Brevium")
	return err == nil
}

func stopAtLogin() error {
	k, err := registry.OpenKey(registry.CURRENT_USER, atLogin, registry.SET_VALUE)
	if errors.Is(err, registry.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	defer k.Close()
	if err := k.DeleteValue("Brevium"); !errors.Is(err, registry.ErrNotExist) {
		return err
	}
	return nil
}

func startAtLogin(program string) error {
	k, _, err := registry.CreateKey(registry.CURRENT_USER, atLogin, registry.SET_VALUE)
	if err != nil {
		return err
	}
	defer k.Close()
	return k.SetStringValue("Brevium", `"`+program+`" `+QuietArg)
}
