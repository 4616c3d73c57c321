package leveltally.core.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Set;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class DeedTest {
    private static Actor actor(Role... roles) {
        return new Actor(new PersonId(1), "Somebody", Set.of(roles), LocalDate.EPOCH, Instant.EPOCH, "here");
    }

    @ParameterizedTest
    @CsvSource({
        "SET_COMPANY, CONTROLLER ADMINISTRATOR",
        "ENTER_INVOICE, CLERK",
        "EDIT_BATCH, CLERK",
        "SEND_BATCH, CLERK",
        "APPROVE, APPROVER CONTROLLER",
        "PRINT, CLERK",
        "POST, CLERK",
        "UNDO_PAYMENT, CLERK",
        "AGREE_TO_UNDO, APPROVER CONTROLLER",
        "RECORD_CLEARING, CLERK",
        "MAKE_BANK_FILE, CLERK",
        "LOCK_PERIOD, CONTROLLER",
        "HOLD, CLERK CONTROLLER",
        "SET_ROUTES, CONTROLLER",
        "CONFIRM_ROUTES, CONTROLLER ADMINISTRATOR",
        "NAME_DEPUTY, APPROVER CONTROLLER ADMINISTRATOR",
        "CONFIRM_PEOPLE, CONTROLLER ADMINISTRATOR",
        "PROPOSE_VENDOR_CHANGE, CLERK CONTROLLER",
        "CONFIRM_VENDOR_CHANGE, CONTROLLER",
        "RELEASE_VENDOR, CONTROLLER",
        "CHANGE_PEOPLE, ADMINISTRATOR",
        "RETRY_MAIL, CONTROLLER ADMINISTRATOR",
        "READ, CLERK APPROVER CONTROLLER AUDITOR ADMINISTRATOR",
        "RUN_PROOF, CLERK APPROVER CONTROLLER AUDITOR ADMINISTRATOR"
    })
    void exactlyTheseRolesMay(Deed deed, String roles) {
        for (Role role : Role.values()) {
            boolean expected = Set.of(roles.split(" ")).contains(role.name());
            assertThat(deed.allowedTo(Set.of(role))).as("%s %s", role, deed).isEqualTo(expected);
        }
    }

    @ParameterizedTest
    @EnumSource
    void nobodyWithoutARoleMayAnything(Deed deed) {
        assertThatThrownBy(() -> actor().mayDo(deed)).isInstanceOfSatisfying(Refusal.class, refusal -> {
            assertThat(refusal.kind()).isEqualTo(Refusal.Kind.NOT_ALLOWED);
            assertThat(refusal.sentence()).contains(deed.words()).endsWith("Ask somebody who has it.");
        });
    }

    @Test
    void oneOfSeveralRolesIsEnough() {
        actor(Role.AUDITOR, Role.CLERK).mayDo(Deed.POST);
    }
}
