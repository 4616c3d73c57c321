package leveltally.core.batches;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import org.junit.jupiter.api.Test;

class SaidTest {
    private static final Set<String> ACCOUNTS = Set.of("5100", "5200");

    @Test
    void whatIsSaidNamesInvoicesOrAccounts() {
        assertThat(Said.read("  ", ACCOUNTS::contains)).isEqualTo(new Said.Nothing());
        assertThat(Said.read("PR-7741, PR-7742;", ACCOUNTS::contains))
                .isEqualTo(new Said.Invoices(List.of("PR-7741", "PR-7742")));
        assertThat(Said.read("5100", ACCOUNTS::contains))
                .isEqualTo(new Said.Accounts(List.of(new Said.Share("5100", "", null))));
        assertThat(Said.read("5100/PIER 1,700.00; 5200 525.00", ACCOUNTS::contains))
                .isEqualTo(new Said.Accounts(
                        List.of(new Said.Share("5100", "PIER", "1,700.00"), new Said.Share("5200", "", "525.00"))));
        // what is taken off is a share, too
        assertThat(Said.read("5100 100.00; 5200 -25.00", ACCOUNTS::contains))
                .isEqualTo(new Said.Accounts(
                        List.of(new Said.Share("5100", "", "100.00"), new Said.Share("5200", "", "-25.00"))));
        // a reference that begins like an account is a reference
        assertThat(Said.read("5100-A", ACCOUNTS::contains)).isEqualTo(new Said.Invoices(List.of("5100-A")));
        assertThatThrownBy(() -> Said.read("5100 700.00; PR-7741", ACCOUNTS::contains))
                .hasMessageContaining("no account with its share");
        assertThatThrownBy(() -> Said.read(" ; ,", ACCOUNTS::contains)).isInstanceOf(Refusal.class);
    }

    @Test
    void whatWasPaidAheadNamesTheReferenceItsInvoiceWillCarry() {
        assertThat(Said.read("ahead PO 118", ACCOUNTS::contains)).isEqualTo(new Said.Ahead("PO 118", null));
        assertThat(Said.read(" Ahead  PO-118 from 2026-12-15 ", ACCOUNTS::contains))
                .isEqualTo(new Said.Ahead("PO-118", day("2026-12-15")));
        // a reference that begins so is a reference
        assertThat(Said.read("AHEAD-7", ACCOUNTS::contains)).isEqualTo(new Said.Invoices(List.of("AHEAD-7")));
        assertThatThrownBy(() -> Said.read("ahead", ACCOUNTS::contains)).hasMessageContaining("by the reference");
        assertThatThrownBy(() -> Said.read("ahead from 2026-12-15", ACCOUNTS::contains))
                .hasMessageContaining("by the reference");
        assertThatThrownBy(() -> Said.read("ahead PO-118 from December", ACCOUNTS::contains))
                .hasMessageContaining("“December” is no day");
    }

    @Test
    void sharesOfAccountsComeToWhatWasPaid() {
        List<AccountLine> shares = List.of(
                new AccountLine(new AccountId(1), "PIER", usd("7.00")),
                new AccountLine(new AccountId(2), "", usd("5.25")));
        assertThat(ClaimLine.Direct.paying(usd("12.25"), "FT 1", shares).cash()).isEqualTo(usd("12.25"));
        assertThatThrownBy(() -> ClaimLine.Direct.paying(usd("12.26"), "FT 1", shares))
                .hasMessageContaining("The shares come to");
    }
}
