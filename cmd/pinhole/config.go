package main

import (
	"fmt"
	"slices"
	"strings"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"
	"github.com/spf13/viper"
)

// envPrefix begins the names of the environment's settings: PINHOLE_LISTEN.
const envPrefix = "PINHOLE"

// configFlag names the file of settings.
const configFlag = "config"

// configured lets the environment, and after it a file, say what the flags of a command leave
// unsaid. A setting is called as its flag is.
func configured(cmd *cobra.Command) error {
	v := viper.New()
	v.SetEnvPrefix(envPrefix)
	v.SetEnvKeyReplacer(strings.NewReplacer("-", "_"))
	v.AutomaticEnv()
	if file, err := cmd.Flags().GetString(configFlag); err == nil && file != "" {
		v.SetConfigFile(file)
		if err := v.ReadInConfig(); err != nil {
			return badUse{fmt.Errorf("read the settings of --%s: %w", configFlag, err)}
		}
	}
	var names []string
	cmd.Flags().VisitAll(func(f *pflag.Flag) { names = append(names, f.Name) })
	for _, key := range v.AllKeys() {
		if !slices.Contains(names, key) || key == configFlag || key == "help" {
			return badUse{fmt.Errorf("%s says %s, which is no setting of pinhole %s", v.ConfigFileUsed(), key, cmd.Name())}
		}
	}
	for _, name := range names {
		f := cmd.Flags().Lookup(name)
		if f.Changed || name == configFlag || name == "help" || !v.IsSet(name) {
			continue
		}
		if err := cmd.Flags().Set(name, v.GetString(name)); err != nil {
			return badUse{fmt.Errorf("the setting %s is %q: %w", name, v.GetString(name), err)}
		}
	}
	if err := cmd.ValidateFlagGroups(); err != nil {
		return badUse{err}
	}
	return nil
}
