package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** An address stands in the order of its country, and what is not there leaves no trace. */
class PostalAddressTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "US | Skerrow | ME | 04101 | Skerrow ME 04101",
                "CA | Skerrow | NS | B3H 1A1 | Skerrow NS  B3H 1A1",
                "GB | Skerrow | '' | SK1 2RW | Skerrow / SK1 2RW",
                "IE | Skerrow | Co. Marrow | D02 X285 | Skerrow / Co. Marrow / D02 X285",
                "DE | Köhlersand | Holstein | 25980 | 25980 Köhlersand",
                "ES | Brisa | Costa | 36001 | 36001 Brisa / Costa",
                "IT | Gorse | RM | 00184 | 00184 Gorse RM",
                "BR | Brisa | SP | 01310-100 | Brisa-SP / 01310-100",
                "JP | Chiyoda-ku | TOKYO | 100-0001 | 'Chiyoda-ku, TOKYO 100-0001'",
                "MX | Brisa | '' | 06600 | 06600 Brisa",
                "US | Skerrow | '' | '' | Skerrow",
                "US | '' | ME | 04101 | ME 04101",
                "BR | '' | SP | '' | SP",
            })
    void standsInTheOrderOfItsCountry(String country, String town, String region, String code, String below) {
        var address = new PostalAddress(country, List.of(" 4 Ropewalk Quay ", ""), town, region, code, false);
        assertThat(String.join(" / ", address.lines())).isEqualTo("4 Ropewalk Quay / " + below);
    }

    @Test
    void namesTheCountryLastForLettersFromAbroad() {
        assertThat(new PostalAddress("fr", List.of("1 Quai"), "Île de Gorse", "", "56360", true).lines())
                .containsExactly("1 Quai", "56360 Île de Gorse", "FRANCE");
    }

    @Test
    void rejectsWhatIsNoCountryAndMoreLinesThanTheWindowShows() {
        assertThatThrownBy(() -> new PostalAddress("XX", List.of(), "", "", "", false))
                .hasMessageContaining("Choose the country");
        assertThatThrownBy(() -> new PostalAddress("IE", List.of("a", "b", "c"), "d", "e", "f", false).lines())
                .hasMessageContaining("6 lines");
    }
}
