package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/**
 * A bank wants its files otherwise, and an administrator changes a layout to what its two pages say: records of 64 characters, each
 * ended by a line feed. For each check a C, its number (10, zeros before it), the amount in cents (12, zeros before it), the day as
 * month, day and year (8), 0 for an issue or 1 for a void, and the payee in capital letters (32, cut). At the end a Z, how many
 * checks there are (8), what issues and voids come to together (14), and blanks.
 */
class LayoutTest {
    private static final Desk DESK = Desk.shared();
    private static final String SAMPLE = """
            C0000041722000000579192103020260ANCHOR & THISTLE INSURANCE BROKE
            C0000041736000000008687103020261SEAPINK FLORISTS
            Z0000000200000000587879
            """;

    @Test
    void aSpecificationBecomesALayout() {
        DESK.sitDown("Joss Whitlock");
        DESK.go("/bank-layouts");
        DESK.click("Copy");
        DESK.fill("Name of the layout", "Eider, 64 characters");
        DESK.fill("How files are called", "EIDER{serial:6}.TXT");
        DESK.choose("A record ends with", "LF");

        part(1, "Header");
        DESK.click("Take it out");
        part(1, "record");
        DESK.fill("Text", "C");
        part(1, "account number");
        DESK.click("Take it out");
        part(1, "kind");
        for (int i = 0; i < 3; i++) {
            DESK.click("Down");
        }
        DESK.fill("Written as others", "ISSUE = 0\nVOID = 1");
        DESK.fill("Try a value", "VOID");
        DESK.see("It writes 1");
        part(1, "date");
        DESK.fill("Day, such as", "MMddyyyy");
        part(1, "payee");
        DESK.fill("Width", "32");
        part(2, "record");
        DESK.fill("Text", "Z");
        part(2, "issued");
        DESK.choose("What it holds", "total");
        part(2, "blank");
        DESK.fill("Width", "41");

        DESK.see("C0000041722000000579192103020260ANCHOR & THISTLE INSURANCE BROKE");
        DESK.see("EIDER000000.TXT");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();

        DESK.go("/bank-layouts?view=sample");
        DESK.fill("A sample of the bank", SAMPLE.replace("103020261", "301020261"));
        DESK.see("1 of 3 lines are not as the layout says.");
        DESK.see("“30102026” is no day written as MMddyyyy.");
        DESK.fill("A sample of the bank", SAMPLE);
        DESK.see("All 3 lines are as the layout says.");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();

        DESK.click("Keep as the next version…");
        DESK.confirmed();
        DESK.see("Kept as Eider, 64 characters, version 1.");
        DESK.go("/bank-layouts?view=beside");
        DESK.find(By.cssSelector("button[aria-label^='The other version']")).click();
        DESK.click("Eider, 64 characters, version 1");
        DESK.see("Beside Eider, 64 characters, version 1: ");
        DESK.see("records differ.");

        DESK.go("/bank-accounts");
        DESK.pick("Operations");
        DESK.press(Keys.ENTER);
        DESK.click("Another layout…");
        DESK.choose("In which layout", "Eider, 64 characters");
        DESK.fill("From which day", "2026-11-20");
        DESK.confirmed();
        DESK.see("from Fri 20 Nov 2026 Eider, 64 characters");
    }

    /** Chooses a part of a record, counted from 1. */
    private static void part(int record, String name) {
        DESK.find(By.xpath("//table[@aria-label='The fields']/tbody[" + record
                        + "]//button[starts-with(normalize-space(.), '" + name + "')]"))
                .click();
    }
}
