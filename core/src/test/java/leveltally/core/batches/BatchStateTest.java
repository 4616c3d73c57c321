package leveltally.core.batches;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class BatchStateTest {
    @ParameterizedTest
    @CsvSource({
        "DRAFT, IN_APPROVAL WITHDRAWN",
        "IN_APPROVAL, APPROVED DRAFT WITHDRAWN",
        "APPROVED, NUMBERED FILED POSTED DRAFT WITHDRAWN",
        "NUMBERED, POSTED WITHDRAWN",
        "FILED, POSTED WITHDRAWN",
        "POSTED, ''",
        "WITHDRAWN, ''"
    })
    void goesOnlyWhereTheTableSays(BatchState from, String allowed) {
        Set<String> onward = Set.of(allowed.split(" "));
        for (BatchState to : BatchState.values()) {
            if (onward.contains(to.name())) {
                assertThat(from.to(to)).isEqualTo(to);
            } else {
                assertThatThrownBy(() -> from.to(to)).as("%s to %s", from, to).isInstanceOf(Refusal.class);
            }
        }
    }

    /** No state is a dead end: from each a batch comes to one of its two ends. */
    @ParameterizedTest
    @EnumSource
    void everyStateLeadsToAnEnd(BatchState from) {
        Set<BatchState> reached = EnumSet.of(from);
        boolean grew = true;
        while (grew) {
            Set<BatchState> next = EnumSet.copyOf(reached);
            for (BatchState one : reached) {
                for (BatchState to : BatchState.values()) {
                    if (allows(one, to)) {
                        next.add(to);
                    }
                }
            }
            grew = reached.addAll(next);
        }
        assertThat(reached).containsAnyOf(BatchState.POSTED, BatchState.WITHDRAWN);
    }

    private static boolean allows(BatchState from, BatchState to) {
        try {
            return from.to(to) == to;
        } catch (Refusal refused) {
            return false;
        }
    }

    @Test
    void linesStandOnceANumberIsTaken() {
        assertThat(BatchState.NUMBERED.isEditable()).isFalse();
        assertThat(BatchState.NUMBERED.isLive()).isTrue();
        assertThat(BatchState.POSTED.isLive()).isFalse();
    }

    @Test
    void rejectsAClaimThatIsNotTheSumOfItsLines() {
        Money none = Money.zero(USD);
        var line = new ClaimLine.Invoice(new InvoiceId(1), "R", usd("10"), none, none);
        var remitTo = new RemitTo("Bollard", List.of("1 Quay"));
        assertThatThrownBy(() -> new Claim(new ClaimId(1), new VendorId(1), remitTo, usd("9.99"), List.of(line)))
                .hasMessageContaining("is not Σ of its lines");
    }

    @Test
    void rejectsAPayeeWithoutAName() {
        assertThatThrownBy(() -> new RemitTo("  ", List.of())).hasMessageContaining("no name");
    }
}
