package leveltally.server.printing;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.Claim;
import leveltally.core.batches.Stub;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.printing.CheckText;
import leveltally.core.printing.MicrPattern;
import leveltally.core.printing.Page;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Company;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Lays out checks of our accounts: for the printer, for a marked copy, and for the slip. */
@Component
class CheckPages {
    static final String BLANK_STOCK = "BLANK";

    private final BankAccounts accounts;
    private final Typefaces typefaces;

    CheckPages(BankAccounts accounts, Typefaces typefaces) {
        this.accounts = accounts;
        this.typefaces = typefaces;
    }

    /** The payer of an account's checks. */
    CheckText.Payer payer(BankAccount account) {
        Company company = accounts.company();
        return new CheckText.Payer(
                company.name(),
                company.address(),
                account.bankName(),
                account.currencyWord(),
                account.validity(),
                new RoutingNumber(account.routingNumber()),
                account.accountNumber(),
                MicrPattern.read(account.micrPattern()),
                account.stock().equals(BLANK_STOCK));
    }

    List<Page> pages(
            CheckText.Payer payer,
            Claim claim,
            LocalDate checkDate,
            @Nullable Long number,
            Stub stub,
            CheckForm form,
            CheckLayout.Use use) {
        CheckText text = new CheckText(payer, claim, checkDate, number, stub);
        return CheckLayout.of(text, form, use, typefaces);
    }
}
