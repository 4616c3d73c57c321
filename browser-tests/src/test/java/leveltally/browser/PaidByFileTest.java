package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** Payments by file, from the approved batch to the ledger; and one that comes back days later. */
class PaidByFileTest {
    private static final Desk DESK = Desk.shared();

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

    private static void accessible() {
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }

    @Test
    void transfersGoIntoAFileAndAnAchPaymentComesBack() {
        DESK.sitDown("Ines Okafor");
        transfers();
        ach();
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    /** Made, refused, made again, taken but for one, posted. */
    private static void transfers() {
        DESK.go("/print");
        DESK.pick("Continental, mid-November");
        DESK.see("2 payments can go into a file, 10,543.40 from Continental.");
        DESK.click("Open its files");
        DESK.click("Make the file of 2 payments");
        DESK.confirmed();
        DESK.see("the bank said nothing yet");
        DESK.see("CT100004");
        accessible();
        DESK.click("The bank refused it");
        DESK.confirm();
        DESK.see("What the bank found wrong");
        DESK.fill("What the bank found wrong", "the company's number is not known");
        DESK.confirmed();
        DESK.see("refused: the company's number is not known");
        DESK.click("Make the file of 2 payments");
        DESK.confirmed();
        DESK.see("after file 2 was refused");
        DESK.click("The bank took it");
        DESK.fill("Payments it refused", "CT100004 the account is closed");
        DESK.confirmed();
        DESK.see("refused: the account is closed");
        DESK.click("The bank took 1: go to posting");
        DESK.see("1 payment was taken by the bank and can be posted.");
        DESK.click("Post 1 payment");
        DESK.confirmed();
        DESK.see("Posted 1; 1 of “Continental, mid-November” wait.");
        DESK.click("Look at its files");
        DESK.pick("refused: the account is closed");
        DESK.click("Take out");
        DESK.fill("Why, as the trail keeps it", "paid by check instead");
        DESK.confirmed();
        DESK.until("it is out", () -> !DESK.text().contains("refused: the account is closed"));
        DESK.see("in the ledger");
    }

    /** Sent by the channel, answered by the bank, posted, sent back. */
    private static void ach() {
        DESK.go("/print");
        DESK.pick("ACH, second week");
        DESK.click("Open its files");
        DESK.click("Send it by the bank to practise on");
        DESK.until("it is sent", () -> DESK.text().contains("\nsent, "));
        aDay();
        DESK.go("/post");
        DESK.pick("ACH, second week");
        DESK.click("Post 3 payments");
        DESK.confirmed();
        DESK.see("is posted in full");
        DESK.go("/bank/practice");
        By order = By.xpath("//label[contains(., 'send a payment by file back')]/input");
        DESK.find(order).click();
        DESK.until("it is ordered", () -> DESK.find(order).isSelected());
        aDay();
        DESK.go("/bank/notices");
        DESK.see("sent back");
        DESK.pick("sent back");
        DESK.see("was reversed, and its invoices are open again.");
        accessible();
        DESK.click("its batch");
        DESK.see("reversed");
    }

    private static void aDay() {
        DESK.go("/bank/practice");
        DESK.click("Let the day pass");
        DESK.see(" came");
        DESK.go("/bank/exchange");
        DESK.click("Read ");
        DESK.until("all is read", () -> DESK.text().contains("0 files wait"));
    }
}
