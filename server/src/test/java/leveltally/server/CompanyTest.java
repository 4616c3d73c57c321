package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ruth;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.company.Company;
import leveltally.server.company.Companies;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class CompanyTest {
    private static final JsonMapper JSON = new JsonMapper();

    private final Companies companies = bean(Companies.class);

    @Test
    void isChangedByWhoMayOnTheVersionTheySawAndStandsInTheTrail() {
        Companies.Seen seen = companies.seen();
        Company ours = companies.company();
        Company moved = new Company(ours.name(), List.of("5 Ropewalk Quay", "Skerrow"), 2, 90);
        assertThatThrownBy(() -> companies.set(App.ines(), moved, seen.version()))
                .hasMessageContaining("set up or change");
        companies.set(ruth(), moved, seen.version());
        try {
            assertThat(companies.company()).isEqualTo(moved);
            assertThatThrownBy(() -> companies.set(ruth(), ours, seen.version()))
                    .hasMessageContaining("changed the company meanwhile");
            assertThatThrownBy(() -> companies.set(ruth(), ours, Companies.NOT_YET))
                    .hasMessageContaining("changed the company meanwhile");
            String trail = Http.signedIn("priya")
                    .get("/api/trail/of?subject=company%201")
                    .body();
            assertThat(trail)
                    .contains("5 Ropewalk Quay")
                    .contains("4 Ropewalk Quay")
                    .contains("stale after 90 days");
        } finally {
            companies.set(ruth(), ours, companies.seen().version());
        }
    }

    @Test
    void whatCannotBeSoIsSaidAtItsField() {
        Http ruth = Http.signedIn("ruth");
        JsonNode shown = JSON.readTree(ruth.get("/api/company").body());
        assertThat(shown.get("mayChange").asBoolean()).isTrue();
        assertThat(JSON.readTree(Http.signedIn("ines").get("/api/company").body())
                        .get("mayChange")
                        .asBoolean())
                .isFalse();
        Http.Answer refused = ruth.post(
                "/api/company",
                "{\"name\":\"Marrow Bay Ferries\",\"address\":[\"4 Ropewalk Quay\"],\"graceDays\":0,\"staleDays\":5,\"zone\":\"\",\"firstMonth\":1,\"oneTimeByTwo\":true,\"version\":"
                        + shown.get("version") + "}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.body()).contains("staleDays").contains("30 to 730 days");
        assertThat(companies.company().staleDays()).isEqualTo(180);
    }
}
