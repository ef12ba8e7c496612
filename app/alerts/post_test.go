package alerts

import (
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/wneessen/go-mail"
)

func TestAMailServerThatNeverAnswersIsWaitedForNoLongerThanAMailMayTake(t *testing.T) {
	silent, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = silent.Close() }()
	p, err := NewPost("smtp://"+silent.Addr().String(), "tamiz@olmo.example")
	require.NoError(t, err)
	p.wait = 200 * time.Millisecond
	m := mail.NewMsg()
	require.NoError(t, m.From("tamiz@olmo.example"))
	require.NoError(t, m.To("sol@olmo.example"))
	assert.Error(t, p.send(t.Context(), m))
}

func TestAnAddressThatIsNoMailServer(t *testing.T) {
	for _, bad := range []string{"", "http://x:25", "smtp://", "smtp://x:many"} {
		_, err := NewPost(bad, "tamiz@olmo.example")
		assert.Error(t, err, bad)
	}
	_, err := NewPost("smtp://x:25", "nobody")
	assert.ErrorContains(t, err, "TAMIZ_MAIL_FROM")
}
