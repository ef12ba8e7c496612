package mailbox

import (
	"net/http/httptest"
	"net/smtp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const letter = "From: tamiz@olmo.example\r\nTo: sol@olmo.example\r\nSubject: " +
	"=?utf-8?q?Two_new_records_=E2=80=93_Heat?=\r\n" +
	"List-Unsubscribe: <http://127.0.0.1/stop/SECRET>\r\nContent-Type: multipart/alternative; boundary=b\r\n\r\n" +
	"--b\r\nContent-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n" +
	"Caf=C3=A9 <b>\r\n" +
	"--b\r\nContent-Type: text/html\r\n\r\n<p>Shade</p>\r\n--b--\r\n"

func TestAMailIsTakenReadAndShown(t *testing.T) {
	m, err := Listen("127.0.0.1:0")
	require.NoError(t, err)
	defer func() { require.NoError(t, m.Close()) }()
	at := strings.TrimPrefix(m.Address(), "smtp://")
	for range mostKept + 5 {
		require.NoError(t, smtp.SendMail(at, nil, "tamiz@olmo.example", []string{"sol@olmo.example"}, []byte(letter)))
	}
	all := m.Mails()
	require.Len(t, all, mostKept, "the last ones are kept")
	last := all[len(all)-1]
	assert.Equal(t, "Two new records – Heat", last.Subject)
	assert.Equal(t, []string{"sol@olmo.example"}, last.To)
	assert.Equal(t, "http://127.0.0.1/stop/SECRET", last.Stop)
	assert.Equal(t, "Café <b>", strings.TrimSpace(last.Text))
	assert.Equal(t, "<p>Shade</p>", strings.TrimSpace(last.HTML))

	page := httptest.NewRecorder()
	m.ServeHTTP(page, httptest.NewRequest("GET", "/mail", nil))
	assert.Contains(t, page.Body.String(), "Café &lt;b&gt;", "what a mail says is text")
}

func TestWhatIsNoMailIsRefused(t *testing.T) {
	for _, bad := range []string{"", "no head at all", "Subject: =?x?q?a?=\r\n\r\n"} {
		_, err := Read(strings.NewReader(bad))
		assert.Error(t, err, bad)
	}
}
