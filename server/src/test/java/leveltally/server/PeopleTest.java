package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import leveltally.server.people.DemoPassword;
import leveltally.server.people.People;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** People are let in, changed and shut out by administrators, who cannot serve themselves. */
class PeopleTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final Http joss = Http.signedIn("joss");
    private static int count = 1;

    private Http.Answer add(String signIn, String password, String roles) {
        return joss.post(
                "/api/people",
                "{\"signIn\": \"" + signIn + "\", \"name\": \"Nell Sandvik\", \"email\": \"\", \"password\": \""
                        + password + "\", \"roles\": [" + roles + "]}");
    }

    private static final String OWN = "a-quay-full-of-lanterns";

    /** Somebody new who has signed in once and chosen a password of their own. */
    private String added(String roles) {
        String signIn = "nell" + count++;
        assertThat(add(signIn, DemoPassword.VALUE, roles).status()).isEqualTo(200);
        Http first = Http.signedIn(signIn);
        assertThat(first.get("/api/work").body()).contains("change-password");
        assertThat(first.post(
                                "/api/session/password",
                                "{\"old\": \"" + DemoPassword.VALUE + "\", \"password\": \"" + OWN + "\"}")
                        .status())
                .isEqualTo(200);
        return signIn;
    }

    private JsonNode waiting(String name) {
        return JSON.readTree(joss.get("/api/people/changes").body())
                .valueStream()
                .filter(one -> one.get("name").asString().equals(name))
                .reduce((a, b) -> b)
                .orElseThrow();
    }

    /** A role that lets money out, and the password of who holds one, take a second person. */
    @Test
    void suchRolesAndPasswordsAreGivenByTwo() {
        String signIn = added("\"CLERK\"");
        assertThat(change(member(signIn), "\"CLERK\", \"APPROVER\"").status()).isEqualTo(200);
        assertThat(member(signIn).get("roles").toString()).doesNotContain("APPROVER");
        long change = waiting("Nell Sandvik").get("id").asLong();
        assertThat(joss.post("/api/people/changes/" + change + "/confirm", "{}").body())
                .contains("second-person");
        Http ruth = Http.signedIn("ruth");
        assertThat(ruth.post("/api/people/changes/" + change + "/confirm", "{}").status())
                .isEqualTo(200);
        assertThat(member(signIn).get("roles").toString()).contains("APPROVER");
        long id = member(signIn).get("id").asLong();
        String fresh = "a-basin-full-of-buoys";
        assertThat(joss.post("/api/people/" + id + "/password", "{\"password\": \"" + fresh + "\"}")
                        .status())
                .isEqualTo(200);
        assertThatThrownBy(() -> Http.signedIn(signIn, fresh)).hasMessageContaining("do not fit");
        long password = waiting("Nell Sandvik").get("id").asLong();
        assertThat(ruth.post("/api/people/changes/" + password + "/confirm", "{}")
                        .status())
                .isEqualTo(200);
        assertThat(Http.signedIn(signIn, fresh).get("/api/work").body()).contains("change-password");
        assertThat(at(member(signIn), "disable").status()).isEqualTo(200);
    }

    /** Behind the services, too. */
    @Test
    void theDatabaseTakesSuchARoleFromTwoPeopleOnly() throws SQLException {
        String signIn = added("\"CLERK\"");
        long id = member(signIn).get("id").asLong();
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application
                            .createStatement()
                            .executeUpdate("INSERT INTO person_role VALUES (" + id + ", 'CONTROLLER')"))
                    .hasMessageContaining("L7: such a role is given by two people");
        }
        assertThat(at(member(signIn), "disable").status()).isEqualTo(200);
    }

    private JsonNode member(String signIn) {
        return JSON.readTree(joss.get("/api/people").body())
                .valueStream()
                .filter(one -> one.get("signIn").asString().equals(signIn))
                .findFirst()
                .orElseThrow();
    }

    private Http.Answer change(JsonNode who, String roles) {
        return joss.post(
                "/api/people/" + who.get("id").asLong(),
                "{\"version\": " + who.get("version").asLong() + ", \"name\": \""
                        + who.get("name").asString() + "\", \"email\": \"\", \"roles\": [" + roles + "]}");
    }

    private Http.Answer at(JsonNode who, String deed) {
        return joss.post(
                "/api/people/" + who.get("id").asLong() + "/" + deed,
                "{\"version\": " + who.get("version").asLong() + "}");
    }

    @Test
    void whoIsAddedMaySignInAndWhoIsDisabledIsOutAtOnce() {
        String signIn = added("\"CLERK\"");
        Http nell = Http.signedIn(signIn, OWN);
        assertThat(nell.get("/api/work").status()).isEqualTo(200);
        assertThat(member(signIn).get("sessions").asInt()).isPositive();
        // roles count from the next request on
        assertThat(nell.get("/api/people").body()).contains("needs the role administrator");
        assertThat(change(member(signIn), "\"AUDITOR\"").status()).isEqualTo(200);
        assertThat(nell.get("/api/trail/deeds").status()).isEqualTo(200);
        assertThat(at(member(signIn), "disable").status()).isEqualTo(200);
        assertThat(nell.get("/api/work").status()).isIn(401, 403);
        assertThatThrownBy(() -> Http.signedIn(signIn, OWN)).hasMessageContaining("do not fit");
        assertThat(at(member(signIn), "enable").status()).isEqualTo(200);
        assertThat(Http.signedIn(signIn, OWN).get("/api/work").status()).isEqualTo(200);
    }

    @ParameterizedTest
    @CsvSource({
        "elevenchars, 12 characters",
        "passwordpassword, common",
        "nell-weak-nell-weak, name",
        "aaaaaaaaaaaaaaaa, character"
    })
    void rejectsPasswordsThatAreTriedFirst(String password, String words) {
        Http.Answer answer = add("nell-weak", password, "\"CLERK\"");
        assertThat(answer.status()).as(answer.body()).isEqualTo(422);
        assertThat(answer.body()).as(words).contains("password");
    }

    @Test
    void rejectsANameTwiceAStaleChangeAndNoRole() {
        String signIn = added("\"CLERK\"");
        assertThat(add(signIn, DemoPassword.VALUE, "\"CLERK\"").body()).contains("sign-in-taken");
        JsonNode seen = member(signIn);
        assertThat(change(seen, "\"AUDITOR\"").status()).isEqualTo(200);
        assertThat(change(seen, "\"CLERK\"").body()).contains("changed-meanwhile");
        assertThat(change(member(signIn), "").body()).contains("no-role");
        assertThat(at(member(signIn), "disable").status()).isEqualTo(200);
    }

    @Test
    void nobodyServesThemselvesAndTheLastAdministratorStays() {
        JsonNode self = member("joss");
        assertThat(change(self, "\"ADMINISTRATOR\", \"CLERK\"").body()).contains("own-roles");
        assertThat(at(self, "disable").body()).contains("own-roles");
        String second = added("\"ADMINISTRATOR\"");
        Http other = Http.signedIn(second, OWN);
        String body = "{\"version\": " + self.get("version").asLong() + "}";
        assertThat(other.post("/api/people/" + self.get("id").asLong() + "/disable", body)
                        .status())
                .isEqualTo(200);
        // now the second one is the last
        JsonNode out = JSON.readTree(other.get("/api/people").body())
                .valueStream()
                .filter(one -> one.get("signIn").asString().equals("joss"))
                .findFirst()
                .orElseThrow();
        assertThat(other.post(
                                "/api/people/" + out.get("id").asLong() + "/enable",
                                "{\"version\": " + out.get("version").asLong() + "}")
                        .status())
                .isEqualTo(200);
        Http again = Http.signedIn("joss");
        JsonNode last = JSON.readTree(again.get("/api/people").body())
                .valueStream()
                .filter(one -> one.get("signIn").asString().equals(second))
                .findFirst()
                .orElseThrow();
        assertThat(again.post(
                                "/api/people/" + last.get("id").asLong() + "/disable",
                                "{\"version\": " + last.get("version").asLong() + "}")
                        .status())
                .isEqualTo(200);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "UPDATE person p JOIN person_role r ON r.person_id = p.id AND r.role = 'ADMINISTRATOR' SET p.enabled = FALSE",
                "DELETE FROM person_role WHERE role = 'ADMINISTRATOR'"
            })
    void theDatabaseKeepsTheLastAdministratorItself(String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            application.setAutoCommit(false);
            assertThatThrownBy(() -> application.createStatement().executeUpdate(sql))
                    .hasMessageContaining("the last administrator stays");
            application.rollback();
        }
    }

    /** Whatever the names: a hundred wrong passwords from one place close it for a quarter of an hour, and no other place. */
    @Test
    void aPlaceIsClosedAfterAHundredWrongPasswords() {
        People people = App.bean(People.class);
        Instant now = Instant.now();
        App.asRoot("INSERT INTO sign_in_attempt (id, sign_in, origin, at, good) SELECT -seq, CONCAT('guess-', seq),"
                + " '203.0.113.9', UTC_TIMESTAMP() - INTERVAL 10 MINUTE, FALSE FROM seq_1_to_99");
        assertThat(people.signIn("ines", DemoPassword.VALUE, "203.0.113.9", now).signIn())
                .isEqualTo("ines");
        assertThatThrownBy(() -> people.signIn("guess-100", "wrong", "203.0.113.9", now))
                .hasMessageContaining("do not fit");
        assertThatThrownBy(() -> people.signIn("ines", DemoPassword.VALUE, "203.0.113.9", now))
                .hasMessageContaining("from this place");
        assertThat(people.signIn("ines", DemoPassword.VALUE, "203.0.113.10", now)
                        .signIn())
                .isEqualTo("ines");
        assertThat(people.signIn("ines", DemoPassword.VALUE, "203.0.113.9", now.plus(Duration.ofMinutes(16)))
                        .signIn())
                .isEqualTo("ines");
    }

    @Test
    void sessionsAreListedAndEnded() {
        String signIn = added("\"CLERK\"");
        Http here = Http.signedIn(signIn, OWN);
        Http there = Http.signedIn(signIn, OWN);
        JsonNode sessions = JSON.readTree(here.get("/api/session/all").body());
        assertThat(sessions).hasSize(3);
        JsonNode other = sessions.valueStream()
                .filter(one -> !one.get("current").asBoolean())
                .findFirst()
                .orElseThrow();
        assertThat(other.get("from").asString()).startsWith("127.0.0.1, Java");
        assertThat(here.post("/api/session/" + other.get("key").asString() + "/end", "")
                        .status())
                .isEqualTo(200);
        assertThat(there.get("/api/work").status()).isEqualTo(401);
        assertThat(here.post("/api/session/password", "{\"old\": \"wrong\", \"password\": \"a-harbour-full-of-gulls\"}")
                        .body())
                .contains("wrong-password");
        assertThat(here.post(
                                "/api/session/password",
                                "{\"old\": \"" + OWN + "\", \"password\": \"a-harbour-full-of-gulls\"}")
                        .status())
                .isEqualTo(200);
        assertThatThrownBy(() -> Http.signedIn(signIn)).hasMessageContaining("do not fit");
        long id = member(signIn).get("id").asLong();
        String key = JSON.readTree(joss.get("/api/people/" + id + "/sessions").body())
                .get(0)
                .get("key")
                .asString();
        assertThat(joss.post("/api/people/" + id + "/sessions/" + key + "/end", "")
                        .status())
                .isEqualTo(200);
        assertThat(here.get("/api/work").status()).isEqualTo(401);
    }

    @Test
    void aPasswordOfAnyScriptAndLengthWorks() {
        // not the tests' quick one
        var passwords =
                App.CONTEXT.getBean("passwords", org.springframework.security.crypto.password.PasswordEncoder.class);
        String longest = "жук и маяк ".repeat(20).substring(0, 200);
        String kept = passwords.encode(longest);
        assertThat(kept).hasSizeLessThan(200);
        assertThat(passwords.matches(longest, kept)).isTrue();
        // no letter is left unread at the end
        assertThat(passwords.matches(longest.substring(0, 199) + "x", kept)).isFalse();
        // what was kept before still opens the door
        assertThat(passwords.matches(
                        "boatswain",
                        "{bcrypt}"
                                + new org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder()
                                        .encode("boatswain")))
                .isTrue();
    }
}
