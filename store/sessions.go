package store

import "time"

type sessionRow struct {
	TokenHash string `gorm:"primaryKey"`
	Device    string
	ExpiresAt time.Time
}

func (sessionRow) TableName() string { return "sessions" }

// Session returns the device of the hash, if its time has not run out: else ErrNotFound.
func (s *Store) Session(tokenHash string, now time.Time) (Session, error) {
	var row sessionRow
	err := s.read.First(&row, "token_hash = ? AND expires_at > ?", tokenHash, now.UTC()).Error
	return Session{row.TokenHash, row.Device, row.ExpiresAt.UTC()}, plainly(err)
}

// SaveSession adds a session or gives it more time, and forgets those whose time has run out.
func (s *Store) SaveSession(session Session, now time.Time) error {
	return s.InTransaction(func(s *Store) error {
		if err := s.db.Delete(&sessionRow{}, "expires_at <= ?", now.UTC()).Error; err != nil {
			return err
		}
		return plainly(s.db.Save(&sessionRow{session.TokenHash, session.Device, session.ExpiresAt.UTC()}).Error)
	})
}

// EndSession forgets a session; one that is not there is none.
func (s *Store) EndSession(tokenHash string) error {
	return plainly(s.db.Delete(&sessionRow{}, "token_hash = ?", tokenHash).Error)
}

// EndSessions forgets all of them.
func (s *Store) EndSessions() error {
	return plainly(s.db.Delete(&sessionRow{}, "TRUE").Error)
}
