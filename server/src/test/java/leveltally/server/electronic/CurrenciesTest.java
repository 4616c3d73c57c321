package leveltally.server.electronic;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static leveltally.server.App.ruth;
import static leveltally.server.electronic.Electronic.joss;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.batches.Making;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.selection.DueQuestion;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Currencies without decimals and with three, from the invoice through the file's bytes to the ledger. */
class CurrenciesTest {
    private static int count = 1;

    private record Opened(BankAccountId account, WayId way, AccountId payables, AccountId expense, String cash) {}

    private static Opened open(Currency currency) {
        String code = "19" + count++;
        AccountId cash =
                bean(Accounts.class).add(ruth(), new AccountFacts(code, "Cash in " + currency, AccountKind.CASH));
        AccountId payables = bean(Accounts.class)
                .add(ruth(), new AccountFacts("2" + code, "Payables in " + currency, AccountKind.PAYABLES));
        bean(AccountRoles.class).give(ruth(), AccountRole.PAYABLES, currency, payables);
        BankAccountId account = bean(BankAccountSetup.class)
                .open(
                        joss(),
                        new NewBankAccount(
                                "Account in " + currency,
                                "Bank of Eider",
                                currency,
                                new RoutingNumber("990073053"),
                                "77003118" + count,
                                cash));
        WayId way = bean(BankAccountSetup.class)
                .addWay(
                        joss(),
                        account,
                        new BankAccountSetup.WantedWay(
                                "Transfers in " + currency, PaymentMethod.CREDIT_TRANSFER, false));
        bean(ElectronicWays.class).set(joss(), account, way, Electronic.wanted(Electronic.transfers()));
        return new Opened(
                account,
                way,
                payables,
                new AccountId(number("SELECT id FROM ledger_account WHERE code = '5200'")),
                code);
    }

    private static InvoiceId invoice(Opened in, String vendor, Currency currency, String amount) {
        return bean(Entering.class)
                .enter(
                        ines(),
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                App.vendor(vendor),
                                "C-" + count++,
                                App.TODAY.minusDays(9),
                                App.TODAY.minusDays(9),
                                in.payables(),
                                Money.zero(currency),
                                List.of(new NewInvoice.Line(in.expense(), Money.parse(amount, currency)))));
    }

    private static BatchId approved(Opened in, InvoiceId... invoices) {
        DueQuestion asked = DueQuestion.of(in.account().value(), App.TODAY.toString(), "2000-01-01", null)
                .by(in.way())
                .marked(
                        null,
                        String.join(
                                ".",
                                List.of(invoices).stream()
                                        .map(id -> String.valueOf(id.value()))
                                        .toList()));
        BatchId batch = bean(Making.class).make(ines(), App.batch("In another currency", asked));
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        return batch;
    }

    @ParameterizedTest
    @CsvSource({"JPY, 120500, 99, 120599, 120599", "BHD, 12.345, 0.005, 12.350, 12350"})
    void areWrittenAndPostedInTheirOwnMinorUnits(String code, String one, String other, String together, long minor)
            throws IOException {
        Currency currency = Currency.getInstance(code);
        Opened in = open(currency);
        String vendor = Electronic.vendor(
                PaymentMethod.CREDIT_TRANSFER,
                code,
                BankDetails.typed("990073053", "55110" + count++ + "2", false, ""));
        BatchId batch = approved(in, invoice(in, vendor, currency, one), invoice(in, vendor, currency, other));
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        try (var content = bean(BankFiles.class).open(file)) {
            assertThat(new String(content.readAllBytes(), StandardCharsets.UTF_8))
                    .contains("<InstdAmt Ccy=\"" + code + "\">" + together + "</InstdAmt>")
                    .contains("<CtrlSum>" + together + "</CtrlSum>");
        }
        bean(BankAnswers.class).accepted(ines(), file, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(number(
                        "SELECT SUM(l.credit_minor) FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id"
                                + " JOIN ledger_account a ON a.id = l.account_id AND a.code = ? WHERE e.batch_id = ? AND l.currency = ?",
                        in.cash(),
                        batch.value(),
                        code))
                .isEqualTo(minor);
        assertThatThrownBy(() -> Money.parse(code.equals("JPY") ? "12.5" : "1.2345", currency))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }
}
