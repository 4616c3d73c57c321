package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Names of every script in the letters of a file. */
class PlainTextTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Île de Gorse Pêcheries | Ile de Gorse Pecheries | Ile de Gorse Pecheries",
                "Øre & Söhne – “x” ß | Ore & Sohne - \"x\" ss | Ore + Sohne - 'x' ss",
                "Паром Скеррова | Parom Skerrova | Parom Skerrova",
                "מעבורת | m'bwrt | m'bwrt",
                "a@b_c;d! | a@b_c;d! | a(at)b-c,d.",
                "12 € | 12 EUR | 12 EUR",
                "☂ | . | ."
            })
    void aNameIsWrittenAsItSounds(String name, String ach, String transfer) {
        assertThat(PlainText.ACH.of(name)).isEqualTo(ach);
        assertThat(PlainText.TRANSFER.of(name)).isEqualTo(transfer);
    }

    @ParameterizedTest
    @EnumSource
    void whateverComesIsPlain(PlainText plain) {
        Random random = new Random(11);
        for (int round = 0; round < 300; round++) {
            String text = random.ints(1 + round % 20, 1, 0x2FFF)
                    .filter(one -> Character.isDefined(one) && !Character.isSurrogate((char) one))
                    .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                    .toString();
            String written = plain.of(text);
            assertThat(plain.isPlain(written)).as("%s of %s", written, text).isTrue();
            assertThat(plain.of(written)).isEqualTo(written);
        }
    }

    @Test
    void gapsStayGaps() {
        assertThat(PlainText.ACH.of("a\tb\nc")).isEqualTo("a b c");
    }
}
