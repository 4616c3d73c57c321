package leveltally.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ExchangeTest {
    @ParameterizedTest
    @CsvSource({
        "false, NOTHING, false, LAY",
        "false, NOTHING, true, LAY",
        "true, NOTHING, true, NAME",
        "true, NOTHING, false, NOT_KNOWN",
        "false, SAME, false, SENT",
        "true, SAME, true, SENT",
        "false, OTHER, true, OTHER_THERE",
        "true, OTHER, false, OTHER_THERE"
    })
    void aFileIsNeverLaidTwice(boolean begun, Placing.Found found, boolean laid, Placing next) {
        assertThat(Placing.next(begun, found, laid)).isEqualTo(next);
    }

    @Test
    void whatFailsIsTriedAgainLaterAndLater() {
        Duration before = Duration.ZERO;
        Duration all = Duration.ZERO;
        for (int tries = 1; tries < Tries.MOST; tries++) {
            assertThat(Tries.after(tries)).isGreaterThanOrEqualTo(before).isLessThanOrEqualTo(Duration.ofHours(1));
            before = Tries.after(tries);
            all = all.plus(before);
        }
        assertThat(all).isBetween(Duration.ofDays(1), Duration.ofDays(3));
    }

    @ParameterizedTest
    @CsvSource({
        "paid-*.txt, paid-2026-11-12.txt, true",
        "paid-*.txt, PAID-1.TXT, true",
        "paid-*.txt, paid-1.txt.part, false",
        "paid-*.txt, prepaid-1.txt, false",
        "P?.DAT, P7.DAT, true",
        "P?.DAT, P77.DAT, false",
        "a.b, aXb, false",
        "*, anything, true"
    })
    void namesAreKnownByTheirPattern(String pattern, String name, boolean matches) {
        assertThat(new FilePattern(pattern).matches(name)).isEqualTo(matches);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "  ", "a/b"})
    void noPatternIsOne(String text) {
        assertThatThrownBy(() -> new FilePattern(text)).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"../up", "a/../../b", "a\\b", "a\nb"})
    void noFolderClimbs(String path) {
        assertThatThrownBy(() -> new RemoteFolder(path)).isInstanceOf(Refusal.class);
    }

    @Test
    void aFolderHoldsFiles() {
        assertThat(new RemoteFolder("account/in/ ").of("a.txt")).isEqualTo("account/in/a.txt");
        assertThat(new RemoteFolder("").of("a.txt")).isEqualTo("a.txt");
        assertThat(new RemoteFolder("/var/in").of("a.txt")).isEqualTo("/var/in/a.txt");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", "SHA256:short", "MD5:aa:bb", "SHA256:" + "=============================================="})
    void aHostIsPinnedByItsWholeFingerprint(String text) {
        assertThatThrownBy(() -> new HostKey(text)).isInstanceOf(Refusal.class);
    }
}
