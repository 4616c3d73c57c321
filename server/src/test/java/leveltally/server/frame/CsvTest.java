package leveltally.server.frame;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CsvTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            ignoreLeadingAndTrailingWhitespace = false,
            value = {
                "=1+1|'=1+1",
                "@x|'@x",
                "-12.50|-12.50",
                "-12.50 x|'-12.50 x",
                "a;=1|a;'=1",
                "a; =1|a;' =1",
                "a;b|a;b",
                "rope - tarred|rope - tarred"
            })
    void aCellIsNeverRunWhereverASpreadsheetSplitsIt(String cell, String written) {
        assertThat(Csv.harmless(cell)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource({"tab,\\t", "line,\\n", "return,\\r"})
    void norAfterATabOrALineBreak(String what, String written) {
        String split = written.translateEscapes();
        assertThat(Csv.harmless("a" + split + "+1")).as(what).isEqualTo("a" + split + "'+1");
    }
}
