package store

import (
	"errors"
	"syscall"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// Errors that callers tell apart.
var (
	// ErrNotFound: nothing stored has that id.
	ErrNotFound = errors.New("not found")
	// ErrConflict: the thing was changed since the version that the change names.
	ErrConflict = errors.New("changed elsewhere in the meantime")
	// ErrNoSuch: a change names another thing, by id, that is not there.
	ErrNoSuch = errors.New("refers to something that is not there")
)

// Errors of the data file itself. Each says what to do.
var (
	ErrForeign    = errors.New("this is not a data file of Pinhole, and is left as it is: name another with --data")
	ErrNoDatabase = errors.New("this is no SQLite file, or one damaged beyond reading: restore a backup, or name another with --data")
	ErrNewer      = errors.New("it was written by a newer Pinhole, and is left as it is: use that one, or restore an older backup")
	ErrNoTables   = errors.New("this file has no tables: it is a copy of a running data file without what lay beside it in -wal. Make copies with pinhole backup; to start anew, name another file")
	ErrHeld       = errors.New("another Pinhole serves from this data file: use that one, or end it first")
	ErrFull       = errors.New("the disk is full: make room, nothing was stored")
	ErrReadOnly   = errors.New("the data file may not be written: its folder or its disk is read-only")
	ErrBusy       = errors.New("the data file is locked by another program: nothing was stored, try again")
	ErrDisk       = errors.New("the disk failed: nothing was stored")
	ErrDamaged    = errors.New("the data file is damaged and can only be read: restore a backup")
	ErrBadBackup  = errors.New("this is no sound data file of this Pinhole or an older one: nothing was changed")
	ErrGone       = errors.New("the data file is no longer where it was opened: put it back, or start Pinhole again")
)

// faults are ours for what SQLite says, by its primary result codes.
var faults = map[int]error{
	sqlite3.SQLITE_FULL:     ErrFull,
	sqlite3.SQLITE_READONLY: ErrReadOnly, sqlite3.SQLITE_PERM: ErrReadOnly, sqlite3.SQLITE_CANTOPEN: ErrReadOnly,
	sqlite3.SQLITE_BUSY: ErrBusy, sqlite3.SQLITE_LOCKED: ErrBusy,
	sqlite3.SQLITE_IOERR:   ErrDisk,
	sqlite3.SQLITE_CORRUPT: ErrDamaged, sqlite3.SQLITE_NOTADB: ErrDamaged,
}

// systemFaults are ours for what the system says of a file.
var systemFaults = map[syscall.Errno]error{
	syscall.ENOSPC: ErrFull, syscall.EDQUOT: ErrFull,
	syscall.EROFS: ErrReadOnly, syscall.EACCES: ErrReadOnly, syscall.EPERM: ErrReadOnly,
	syscall.EIO: ErrDisk,
}

// ofSystem adds our own error to what the system says of writing a file.
func ofSystem(err error) error {
	var code syscall.Errno
	if errors.As(err, &code) && systemFaults[code] != nil {
		return errors.Join(systemFaults[code], err)
	}
	return err
}

// translate turns what SQLite says into our own errors, once.
func translate(err error) error {
	var fault *sqlite.Error
	if !errors.As(err, &fault) {
		return err
	}
	ours := faults[fault.Code()&0xff]
	if fault.Code() == sqlite3.SQLITE_CONSTRAINT_FOREIGNKEY {
		ours = ErrNoSuch
	}
	if ours == nil || errors.Is(err, ours) {
		return err
	}
	return errors.Join(ours, err)
}
