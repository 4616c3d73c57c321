package leveltally.core.contacts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Page;
import leveltally.core.paper.PageSize;
import leveltally.core.payments.AgeBand;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ContactsTest {
    /** Half a point for each point of size and character; no face knows the snowman. */
    private static final Measure HALVES = new Measure() {
        @Override
        public double width(Face face, double size, String text) {
            return text.length() * size / 2;
        }

        @Override
        public String missing(Face face, String text) {
            return text.contains("☃") ? "☃" : "";
        }
    };

    private static final Map<String, String> OF = Map.of(
            "payee", "Rope & $1 Co",
            "number", "41237",
            "amount", "1,225.00 USD",
            "date", "Wed 28 Jan 2026",
            "days", "288",
            "company", "Skerrow Ferries");

    @Test
    void marksAreFilledAsTheyAre() {
        ContactLetter.Filled letter = ContactLetter.USUAL.filled(OF);
        assertThat(letter.subject()).isEqualTo("Check 41237 of Wed 28 Jan 2026 was not presented");
        assertThat(letter.paragraphs()).hasSize(4);
        assertThat(String.join(" ", letter.paragraphs()))
                .contains("Rope & $1 Co", "1,225.00 USD", "288 days")
                .doesNotContain("{", "}");
    }

    @Test
    void rejectsWhatNothingFills() {
        assertThatThrownBy(() -> new ContactLetter("About {cheque}", "Good day"))
                .hasMessageContaining("Nothing fills {cheque}")
                .hasMessageContaining("number");
        assertThatThrownBy(() -> new ContactLetter("About", " ")).hasMessageContaining("up to 3000");
        assertThatThrownBy(() -> new ContactLetter("About\nmore", "Good day")).hasMessageContaining("one line");
    }

    @Test
    void aLetterIsBrokenIntoLinesThatFit() {
        List<String> lines = LetterPage.lines(List.of("one two three", "four"), 10, 40, HALVES);
        assertThat(lines).containsExactly("one two", "three", "", "four");
    }

    @Test
    void theLongestLetterStaysOnItsSheet() {
        ContactLetter longest = new ContactLetter("About", "a b ☃ ".repeat(500).strip());
        Page page = LetterPage.of(
                List.of("Skerrow Ferries", "1 Quay"),
                List.of("Rope Walk", "2 Quay"),
                "Thu 12 Nov 2026",
                longest.filled(OF),
                PageSize.LETTER,
                HALVES);
        assertThat(page.boxes()).allSatisfy(box -> {
            Box.Text text = (Box.Text) box;
            assertThat(text.y()).isBetween(0.0, page.height() - 20);
            assertThat(text.text()).doesNotContain("☃");
        });
    }

    @ParameterizedTest
    @CsvSource({"-3, UP_TO_30", "30, UP_TO_30", "31, UP_TO_90", "180, UP_TO_180", "181, UP_TO_A_YEAR", "366, OLDER"})
    void anAgeLiesInOneBand(long days, AgeBand band) {
        assertThat(AgeBand.of(days)).isEqualTo(band);
    }

    @Test
    void aStateIsKnownByHowItsPostalCodesBegin() {
        Dormancy kept = Dormancy.read("410 Skerrow 3\n\n 77 Port Gorse 5\n4101 Skerrow, the island 1\n* elsewhere 4");
        assertThat(kept.of("41012").orElseThrow().state()).isEqualTo("Skerrow, the island");
        assertThat(kept.of("41099").orElseThrow().years()).isEqualTo(3);
        assertThat(kept.of("").orElseThrow().state()).isEqualTo("elsewhere");
        assertThat(kept.of("77001").orElseThrow().from(java.time.LocalDate.of(2024, 2, 29)))
                .isEqualTo(java.time.LocalDate.of(2029, 2, 28));
        assertThat(Dormancy.read(kept.typed())).isEqualTo(kept);
        assertThat(Dormancy.read("410 Skerrow 3").of("77001")).isEmpty();
        for (String wrong :
                List.of("410 Skerrow", "410 Skerrow 0", "410 Skerrow 31", "410 A 1\n410 B 2", "Skerrow three")) {
            assertThatThrownBy(() -> Dormancy.read(wrong)).as(wrong).hasMessageContaining("Line");
        }
    }
}
