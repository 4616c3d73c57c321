package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** A morning with the bank: what it paid wrongly is answered, its statement read, and bank and ledger signed. */
class BankTest {
    private static final Desk DESK = Desk.shared();

    /** What the bank of the demo says of November so far; it goes on where October ended. */
    private static final String STATEMENT = """
            STATEMENT;;13;2026-11-01;2026-11-12;727080.88;727267.60
            2026-11-11;41741;2535.69;;724545.19;;
            2026-11-11;41736;86.87;;724458.32;;
            2026-11-11;14227;312.40;;724145.92;;
            2026-11-12;41722;5791.92;;718354.00;;
            2026-11-12;;86.40;;718267.60;;Bank charges November
            2026-11-12;;;9000.00;727267.60;;Transfer from Harbour Works
            """;

    @Test
    void whatTheBankPaidIsAnsweredReadAndReconciled() throws IOException {
        DESK.sitDown("Ines Okafor");
        DESK.go("/bank/paid");
        DESK.see("3 wait for an answer");
        answered("Undertow Diving", "the bank owes 90.00 until it gives it back", "read as a 5");
        answered("Seapink Florists", "The bank is told to return it", "it was voided");
        DESK.pick("14227");
        DESK.see("No check of this account has the number 14227.");
        DESK.find(By.xpath("//label[contains(., 'ask it to correct')]/input")).click();
        DESK.see("The bank owes 312.40 until it gives it back. Nothing else changes.");
        DESK.fill("Why", "no check of ours");
        DESK.click("Answer it");
        DESK.see("Everything the bank moved is answered");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();

        DESK.click("Type a paid check…");
        DESK.fill("Number", "41722");
        DESK.fill("Amount the bank paid", "5791.92");
        DESK.confirmed();
        DESK.see("1 movement: 1 check cleared, nothing waits.");

        Path file = Files.writeString(Files.createTempFile("statement", ".csv"), STATEMENT);
        DESK.click("Read a file of the bank…");
        DESK.find(By.cssSelector("[role=dialog] input[type=file]")).sendKeys(file.toString());
        DESK.choose("How it is written", "Paid checks, comma list");
        DESK.confirm();
        DESK.see("is not the header this layout begins with");
        DESK.choose("How it is written", "Statement, semicolons, balance after each");
        DESK.confirmed();
        DESK.see("6 movements: 0 checks cleared, 4 told before, 2 to be answered.");
        Files.delete(file);

        DESK.pick("Bank charges November");
        DESK.choose("Account", "5600 Office");
        DESK.fill("Propose this account", "Bank charges");
        DESK.click("Answer it");
        DESK.see("1 waits for an answer");
        DESK.pick("Transfer from Harbour Works");
        DESK.see("The ledger's cash rises by 9,000.00");
        DESK.choose("Account", "1020 Cash, Harbour Works");
        DESK.click("Answer it");
        DESK.see("Everything the bank moved is answered");

        DESK.sitDown("Ruth Castellane");
        DESK.go("/bank/reconciled");
        DESK.see("Thu 12 Nov 2026");
        DESK.see("Explained to the cent.");
        DESK.see("Owed by the bank");
        DESK.click("Owed by the bank");
        DESK.see("Check 41741");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("Sign Thu 12 Nov 2026…");
        DESK.confirmed();
        DESK.see("as it was signed");
        DESK.go("/bank/told?number=41722");
        DESK.see("Told before: typed");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    private static void answered(String payee, String then, String why) {
        DESK.pick(payee);
        DESK.see(then);
        DESK.fill("Why", why);
        DESK.click("Answer it");
        DESK.until("it is answered", () -> DESK.rows().stream().noneMatch(row -> row.contains(payee)));
    }
}
