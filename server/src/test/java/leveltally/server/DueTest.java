package leveltally.server;

import static leveltally.server.App.bean;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.selection.Decision;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.selection.Selection;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Holds;
import leveltally.server.invoices.OpenItems;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the statement reads against a slow look at every open invoice. */
class DueTest {
    private static Selection select(String dueBy, @Nullable String nextRun, List<Long> out, List<Long> add) {
        DueQuestion question = DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), dueBy, nextRun)
                .marked(joined(out), joined(add));
        return bean(Due.class).select(question, App.TODAY);
    }

    private static String joined(List<Long> ids) {
        return ids.stream().map(String::valueOf).collect(Collectors.joining("."));
    }

    private static Set<Long> ids(Selection selection) {
        Set<Long> ids = new HashSet<>();
        selection.rows().forEach(row -> ids.add(row.candidate().invoice().id().value()));
        return ids;
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-20, 2026-11-27",
        "2026-11-13,",
        "2026-12-31, 2026-11-14",
        "2000-01-01, 2026-12-31",
        "2000-01-01,"
    })
    void asksForExactlyWhatIsDueOrLosesItsDiscount(String dueBy, String nextRun) {
        Selection selection = select(dueBy, nextRun, List.of(), List.of());
        List<Long> all = App.jdbc()
                .sql("SELECT id FROM invoice WHERE kind = 'INVOICE' AND open_minor > 0")
                .query(Long.class)
                .list();
        Set<Long> expected = new HashSet<>();
        bean(OpenItems.class).open(all.stream().map(InvoiceId::new).toList()).forEach((id, invoice) -> {
            if (selection.criteria().asksFor(invoice)) {
                expected.add(id.value());
            }
        });
        assertThat(ids(selection)).isEqualTo(expected);
    }

    @Test
    void anInvoiceAddedByHandIsTakenThoughNotDueAndTakenOutAgain() {
        InvoiceId invoice = App.invoice("Capstan Hydraulics", "640.00");
        assertThat(ids(select("2000-01-01", null, List.of(), List.of()))).doesNotContain(invoice.value());
        Selection added = select("2000-01-01", null, List.of(), List.of(invoice.value(), 999_999L));
        assertThat(added.taken()).hasSize(1);
        // 1% until 12 Nov lapsed on the check date
        assertThat(added.toPay()).hasToString("640.00");
        Selection out = select("2000-01-01", null, List.of(invoice.value()), List.of(invoice.value()));
        assertThat(out.taken()).isEmpty();
    }

    @Test
    void aReservedInvoiceNamesItsBatch() {
        InvoiceId invoice = App.invoice("Capstan Hydraulics", "12.00");
        var batch = App.draft(invoice);
        Selection selection = select("2000-01-01", null, List.of(), List.of(invoice.value()));
        assertThat(selection.rows())
                .singleElement()
                .satisfies(row -> assertThat(row.decision())
                        .isEqualTo(new Decision.LeftOut(LeftOutReason.IN_ANOTHER_BATCH, "Test batch")));
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
        assertThat(select("2000-01-01", null, List.of(), List.of(invoice.value()))
                        .taken())
                .hasSize(1);
    }

    @Test
    void addsToADraftOnlyWhatCanBeTaken() {
        InvoiceId first = App.invoice("Capstan Hydraulics", "13.00");
        InvoiceId second = App.invoice("Pelorus Charts", "14.00");
        InvoiceId held = App.invoice("Capstan Hydraulics", "15.00");
        bean(Holds.class).hold(App.ines(), held, "short delivery");
        var batch = App.draft(first);
        Drafting drafting = bean(Drafting.class);
        Withdrawing withdrawing = bean(Withdrawing.class);
        ClaimRows claims = bean(ClaimRows.class);
        assertThatThrownBy(() -> drafting.add(App.ines(), batch, App.version(batch), List.of(second, held)))
                .hasMessageContaining("cannot be added: held invoice: short delivery");
        assertThatThrownBy(() -> drafting.add(App.ines(), batch, App.version(batch), List.of(new InvoiceId(999_999))))
                .hasMessageContaining("not open any more");
        drafting.add(App.ines(), batch, App.version(batch), List.of(second));
        assertThat(claims.of(batch)).hasSize(2);
        drafting.takeOut(App.ines(), batch, App.version(batch), java.util.Set.of(first));
        assertThat(claims.of(batch))
                .singleElement()
                .satisfies(claim -> assertThat(claim.amount()).hasToString("14.00"));
        withdrawing.withdraw(App.ines(), batch, App.version(batch));
    }

    @Test
    void aSecondLineOfTheSameVendorJoinsItsClaim() {
        InvoiceId first = App.invoice("Pelorus Charts", "100.00");
        InvoiceId second = App.invoice("Pelorus Charts", "0.05");
        var batch = App.draft(first);
        bean(Drafting.class).add(App.ines(), batch, App.version(batch), List.of(second));
        assertThat(bean(ClaimRows.class).of(batch))
                .singleElement()
                .satisfies(claim -> assertThat(claim.amount()).hasToString("100.05"));
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
    }
}
