package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** Days at the bank to practise on, each with something it does wrong, until bank and ledger are signed. */
class BankWeekTest {
    private static final Desk DESK = Desk.shared();
    private static final By CORRECT = By.xpath("//label[contains(., 'ask it to correct')]/input");
    private static final By HAS = By.xpath("//label[contains(., 'The ledger has it already')]/input");
    private static final By RETURN = By.xpath("//label[contains(., 'Return it')]/input");
    private static final By CANDIDATES = By.xpath(
            "//ul[@aria-label='What it could be']" + " | //p[contains(., 'The ledger has nothing it could be')]");
    private static final By SAME =
            By.xpath("//ul[@aria-label='What it could be']//label[span[contains(@class, 'font-bold')]]/input");

    private static Running bank;

    @BeforeAll
    static void another() {
        bank = Running.demo();
        DESK.visit(bank);
    }

    @AfterAll
    static void gone() {
        DESK.visit(null);
        bank.stop();
    }

    @Test
    void aWeekWithEverythingABankDoesWrong() {
        DESK.sitDown("Ines Okafor");
        tellTheBank("22 issues and 2 voids");
        aDay("refuse the next file");
        DESK.see("Refused positive-pay-2026-11-12-27.txt.");
        read();
        DESK.go("/bank");
        DESK.see("Damaged on its way, please send it again");

        tellTheBank("22 issues and 2 voids");
        aDay("refuse one item of the next file");
        read();
        DESK.see("The bank took file 28, but not 1 check.");
        answerAll();

        tellTheBank("1 issue");
        aDay("pay a check that was voided");
        read();
        answerAll();
        DESK.go("/bank/exchange");
        DESK.click("Tell the bank");
        DESK.see("decisions-2026-11-17-1.csv");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();

        for (String mischief : List.of(
                "pay a check somebody altered", "pay a check twice", "read an amount wrong", "send its list twice")) {
            aDay(mischief);
            read();
            answerAll();
        }

        aDay("send what it has to tell a day late");
        DESK.see("until tomorrow.");
        aDay("leave out a statement");
        DESK.see("Left out statement ");
        read();
        DESK.go("/bank/practice");
        DESK.click("Ask for it");
        DESK.see("1 file came.");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        read();
        answerAll();

        aDay("cut a file off in the middle");
        readSome();
        DESK.see("It is no readable XML");
        DESK.go("/bank/practice");
        DESK.click("Ask for it");
        DESK.see("1 file came.");
        read();
        answerAll();

        DESK.sitDown("Ruth Castellane");
        DESK.go("/bank/reconciled");
        DESK.see("Explained to the cent.");
        DESK.click("Sign ");
        DESK.confirmed();
        DESK.see("as it was signed");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    /** Makes the file of what waits, and sends it. */
    private static void tellTheBank(String what) {
        DESK.go("/bank");
        DESK.click("Make the file of " + what);
        DESK.confirmed();
        // files before it may be shown as sent too
        int before = sent();
        DESK.click("Send it by the bank to practise on");
        DESK.until("it is sent", () -> sent() > before);
    }

    private static int sent() {
        return DESK.text().split("\nsent, ", -1).length;
    }

    private static void aDay(String mischief) {
        DESK.go("/bank/practice");
        By order = By.xpath("//label[contains(., '" + mischief + "')]/input");
        DESK.find(order).click();
        DESK.until("it is ordered", () -> DESK.find(order).isSelected());
        DESK.click("Let the day pass");
        DESK.see(" came");
    }

    private static void readSome() {
        DESK.go("/bank/exchange");
        DESK.click("Read what came");
        DESK.until("it is read", () -> DESK.text().contains(" read"));
    }

    private static void read() {
        readSome();
        DESK.until("nothing waits", () -> DESK.text().contains("0 files wait to be read"));
    }

    /** Whatever the ledger or the bank's debt has is matched; the rest the bank is asked to put right, or to return. */
    private static void answerAll() {
        DESK.go("/bank/paid");
        DESK.until("it is looked up", () -> DESK.text().contains("for an answer"));
        while (!DESK.text().contains("Everything the bank moved is answered")) {
            List<String> rows = new ArrayList<>(DESK.rows());
            if (rows.isEmpty()) {
                continue;
            }
            DESK.find(By.cssSelector("[role=grid] [data-key]")).click();
            DESK.find(By.cssSelector("form[aria-label=Answer]"));
            if (!isMatched()) {
                DESK.find(DESK.has(RETURN) && rows.get(0).contains("voided") ? RETURN : CORRECT)
                        .click();
                DESK.fill("Why", "as it is");
            }
            DESK.click("Answer it");
            DESK.until("it is answered", () -> DESK.rows().size() < rows.size());
        }
    }

    private static boolean isMatched() {
        if (!DESK.has(HAS)) {
            return false;
        }
        DESK.find(HAS).click();
        DESK.find(CANDIDATES);
        if (!DESK.has(SAME)) {
            return false;
        }
        DESK.find(SAME).click();
        return true;
    }
}
