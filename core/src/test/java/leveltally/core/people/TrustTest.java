package leveltally.core.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TrustTest {
    @Test
    void rejectsOwnRolesNoRolesAndTheLastAdministrator() {
        PersonId joss = new PersonId(1);
        PersonId ines = new PersonId(2);
        Trust.checkRoles(joss, ines, Set.of(Role.CLERK), Set.of(Role.APPROVER));
        Trust.checkRoles(joss, joss, Set.of(Role.ADMINISTRATOR), Set.of(Role.ADMINISTRATOR));
        rejects(
                "own-roles",
                () -> Trust.checkRoles(joss, joss, Set.of(Role.ADMINISTRATOR), Set.of(Role.ADMINISTRATOR, Role.CLERK)));
        rejects("no-role", () -> Trust.checkRoles(joss, ines, Set.of(Role.CLERK), Set.of()));
        Trust.checkAdministrators(true, false, 1);
        Trust.checkAdministrators(false, false, 0);
        rejects("last-administrator", () -> Trust.checkAdministrators(true, false, 0));
    }

    private static void rejects(String code, Runnable deed) {
        assertThatThrownBy(deed::run)
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.code()).isEqualTo(code));
    }

    @ParameterizedTest
    @CsvSource({
        "short-one-1, has 12 to 200",
        "aaaabbbbaaaabbbb, repeats",
        "Okafor-and-the-tide, the name of its person",
        "the-ines.okafor-x, the name of its person",
        "Basketball123!, common",
        "sunshine12345, common",
        "basketballbasketball, common"
    })
    void rejectsGuessablePasswords(String password, String words) {
        assertThatThrownBy(() ->
                        Passwords.check(password, "ines.o", "Ines Okafor", Set.of("basketball", "sunshine")::contains))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void takesFourWords() {
        Passwords.check("copper lantern tide nine", "ines", "Ines Okafor", word -> false);
        assertThat(Passwords.SHORTEST).isEqualTo(12);
    }
}
