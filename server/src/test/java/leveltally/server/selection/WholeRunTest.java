package leveltally.server.selection;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.invoice;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.EntryClass;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.RunMaking;
import leveltally.server.electronic.Electronic;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** One question asked of every way to pay, and the batches made of it together. */
class WholeRunTest {
    private static String check;
    private static String ach;
    private static String euros;

    @BeforeAll
    static void threeWays() {
        Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        check = Electronic.vendor(PaymentMethod.CHECK, null);
        ach = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        euros = Electronic.vendor(
                PaymentMethod.CREDIT_TRANSFER, "EUR", BankDetails.typed("", "DE89370400440532013000", false, ""));
    }

    @AfterAll
    static void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static DueQuestion asked() {
        return DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), "2026-12-31", null)
                .toVendors(List.of(
                        App.vendor(check).value(),
                        App.vendor(ach).value(),
                        App.vendor(euros).value()));
    }

    private static List<WholeRun.Part> parts(DueQuestion question) {
        return bean(WholeRun.class).of(question, App.TODAY);
    }

    private static RunMaking.Run run(DueQuestion question, List<WholeRun.Part> parts) {
        return new RunMaking.Run(
                "Run of the week",
                "",
                question,
                parts.stream()
                        .map(part -> new RunMaking.Part(
                                part.from().id().value(),
                                part.by().id().value(),
                                part.selection().taken().size(),
                                part.selection().toPay().toString()))
                        .toList(),
                null);
    }

    private static List<BatchId> made(DueQuestion question, List<WholeRun.Part> parts) {
        return bean(RunMaking.class).make(ines(), run(question, parts));
    }

    private static String name(BatchId batch) {
        return App.jdbc()
                .sql("SELECT name FROM batch WHERE id = ?")
                .param(batch.value())
                .query(String.class)
                .single();
    }

    private static long batches() {
        return number("SELECT COUNT(*) FROM batch");
    }

    @Test
    void everyWayTakesItsOwnAndAllAreMadeTogether() {
        InvoiceId onPaper = invoice(check, "10.10");
        InvoiceId inFile = invoice(ach, "20.20");
        InvoiceId abroad = invoice(euros, "30.30");
        List<WholeRun.Part> parts = parts(asked());
        assertThat(parts)
                .extracting(part -> part.by().method() + " " + part.selection().toPay() + " "
                        + part.from().currency())
                .containsExactly("CHECK 10.10 USD", "ACH 20.20 USD", "CREDIT_TRANSFER 30.30 EUR");
        List<BatchId> made = made(asked(), parts);
        assertThat(made)
                .extracting(WholeRunTest::name)
                .containsExactly(
                        "Run of the week, check", "Run of the week, ACH", "Run of the week, credit transfer, EUR");
        assertThat(made)
                .extracting(batch -> bean(ClaimRows.class)
                        .of(batch)
                        .get(0)
                        .lines()
                        .get(0)
                        .item()
                        .orElseThrow())
                .containsExactly(onPaper, inFile, abroad);
        assertThat(parts(asked())).isEmpty();
    }

    @Test
    void theWayThatIsAskedForComesFirst() {
        invoice(check, "11.11");
        invoice(ach, "21.21");
        WayId way = bean(BankAccounts.class).get(App.operations()).payingWays().stream()
                .filter(one -> one.method() == PaymentMethod.ACH)
                .findFirst()
                .orElseThrow()
                .id();
        List<WholeRun.Part> parts = parts(asked().by(way));
        assertThat(parts).extracting(part -> part.by().method()).startsWith(PaymentMethod.ACH, PaymentMethod.CHECK);
        assertThat(parts.get(0).by().id()).isEqualTo(way);
        made(asked().by(way), parts);
    }

    @Test
    void allAreMadeOrNone() {
        invoice(check, "12.12");
        invoice(ach, "22.22");
        List<WholeRun.Part> seen = parts(asked());
        invoice(ach, "0.01");
        long before = batches();
        assertThatThrownBy(() -> made(asked(), seen))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("The list changed meanwhile: 2 invoices would be taken now, not 1.");
        assertThat(batches()).isEqualTo(before);
        assertThatThrownBy(() -> made(asked(), List.of())).hasMessageContaining("No way is chosen");
        List<WholeRun.Part> twice = new ArrayList<>(parts(asked()));
        twice.add(twice.get(0));
        assertThatThrownBy(() -> made(asked(), twice)).hasMessageContaining("No invoice is taken");
        assertThat(batches()).isEqualTo(before);
        assertThat(made(asked(), parts(asked()))).hasSize(2);
    }

    @Test
    void noVendorIsInTwoWaysOfTheWholeCompany() {
        Set<InvoiceId> seen = new HashSet<>();
        DueQuestion all =
                DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), App.CHECK_DATE.toString(), null);
        for (WholeRun.Part part : parts(all)) {
            part.selection()
                    .taken()
                    .forEach(row -> assertThat(
                                    seen.add(row.candidate().invoice().id()))
                            .as(
                                    "%s by %s",
                                    row.candidate().invoice().id(), part.by().name())
                            .isTrue());
        }
        assertThat(seen).isNotEmpty();
    }

    @Test
    void aLimitIsOfOneBatch() {
        assertThatThrownBy(() -> parts(asked().paying(false, "500.00", null)))
                .hasMessageContaining("A limit is of one batch");
    }
}
