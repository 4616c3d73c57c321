package leveltally.core.printers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class QueueSaysTest {
    /** Whatever is not known for certain is not known. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            0 | request id is tray-17 (0 file(s))                        | ACCEPTED  | tray-17
            1 | request id is tray-17 (0 file(s))                        | ACCEPTED  | tray-17
            1 | lp: Error - The printer or class does not exist.         | REFUSED   | ''
            1 | lp: Destination "tray" is not accepting jobs.            | REFUSED   | ''
            1 | lp: Broken pipe                                          | NOT_KNOWN | ''
            1 | lp: Unable to send document                              | NOT_KNOWN | ''
            0 | ''                                                       | NOT_KNOWN | ''
            137 | ''                                                     | NOT_KNOWN | ''
            """)
    void anAnswerOfThePrintingSystem(int code, String text, Outcome outcome, String job) {
        Handed handed = QueueSays.ofHanding(code, text);
        assertThat(handed.outcome()).isEqualTo(outcome);
        assertThat(handed.job()).isEqualTo(job);
        assertThat(handed.said()).doesNotStartWith("lp:");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            0 | ''                                                       | false
            0 | tray-17    ines    1024   Thu 12 Nov 2026                | true
            0 | tray-171   ines    1024   Thu 12 Nov 2026                | false
            1 | lpstat: Invalid destination name in list "tray".         | true
            """)
    void aJobMayStillPrintUnlessItIsCertainlyOver(int code, String text, boolean may) {
        assertThat(QueueSays.mayStillPrint(code, text, "tray-17")).isEqualTo(may);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "-d", ".hidden", "a b", "a/b", "a;b", "a#b", "a'b"})
    void rejectsANameThatTheCommandLineWouldTakeOtherwise(String name) {
        assertThatThrownBy(() -> new QueueName(name)).isInstanceOf(Refusal.class);
    }

    @Test
    void aNameOfAQueue() {
        assertThat(new QueueName("office-laser_2.A4").value()).isEqualTo("office-laser_2.A4");
        assertThatThrownBy(() -> new QueueName("x".repeat(128))).isInstanceOf(Refusal.class);
    }
}
