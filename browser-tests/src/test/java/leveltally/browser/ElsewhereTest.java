package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Payments made elsewhere, from the check book to the ledger and back, by keyboard where there is much to type. */
class ElsewhereTest {
    private static final Desk DESK = Desk.shared();

    @Test
    void checksWrittenByHandAreTypedAgreedToAndPosted() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/outside");
        DESK.see("Petrel Radio Service");
        DESK.click("Record payments…");
        DESK.see("Check book, harbour office");
        DESK.find(By.name("number-0")).sendKeys("H-301");
        // the day stands there already
        DESK.type(Keys.TAB);
        DESK.type(Keys.TAB);
        DESK.type("Ebb Tide Linen", Keys.TAB);
        DESK.type("5400", Keys.TAB);
        DESK.type("31.20", Keys.ENTER);
        DESK.until(
                "the next number stands in the next row",
                () -> "H-302".equals(DESK.find(By.name("number-1")).getDomProperty("value")));
        DESK.type(Keys.TAB);
        DESK.type(Keys.TAB);
        // as above
        DESK.type(Keys.chord(Keys.CONTROL, "d"));
        DESK.type(Keys.TAB);
        DESK.type("1010", Keys.TAB);
        DESK.type("8.00");
        DESK.see("is an account of cash");
        DESK.see("1 cannot be recorded so");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.find(By.name("said-1")).sendKeys(Keys.chord(Keys.CONTROL, "a"), "5400/GALLEY");
        DESK.see("job GALLEY 8.00");
        DESK.click("Record and send for approval");
        DESK.see("in approval");
        DESK.see("paid elsewhere on");
        String batch = DESK.driver.getCurrentUrl().replaceAll(".*/batches/(\\d+).*", "$1");

        for (String approver : List.of("Maren Lindqvist", "Aldo Ferreira")) {
            ApprovalTest.finish("Check book, harbour office", approver);
        }

        DESK.sitDown("Ines Okafor");
        DESK.go("/post?at=" + batch);
        DESK.click("Post 2 payments…");
        DESK.confirmed();
        DESK.see("posted");
        DESK.until("level", () -> DESK.tally("LEDGER").equals(DESK.tally("LINES")));
        DESK.go("/register?series=all&text=H-301");
        DESK.see("written by hand");
        DESK.pick("Ebb Tide Linen");
        DESK.see("H-301, outstanding, written by hand");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    @Test
    void aWireThatCameBackIsReversedUnderTheBanksReference() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/outside?text=FT%202291");
        DESK.pick("Saltmarsh Marine Fuels");
        DESK.see("If this payment is reversed");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.see("the bank calls its return");
        DESK.find(By.cssSelector("[aria-label='The bank’s reference of the return']"))
                .sendKeys("RET 77-1");
        DESK.until("what would happen is known", () -> !DESK.text().contains("Type what the bank"));
        DESK.click("Reverse wire FT 2291-88…");
        DESK.fill("Why it is reversed", "their account is closed");
        DESK.confirmed();
        DESK.see("Done: ");
        DESK.go("/outside?text=FT%202291");
        DESK.see("reversed");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    @Test
    void paymentsByCardStandOnAStatementOfItsIssuer() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/outside?text=88213-01");
        DESK.pick("Kittiwake Uniforms");
        DESK.click("STMT 2026-11");
        DESK.see("Payments by card on it");
        DESK.find(By.cssSelector("[aria-label='Payment 88213-02 stands on it']"))
                .click();
        DESK.click("Keep what stands on it");
        DESK.see("96.20 on none");
        DESK.find(By.cssSelector("[aria-label='Payment 88213-02 stands on it']"))
                .click();
        DESK.click("Keep what stands on it");
        DESK.until("level again", () -> !DESK.text().contains("on none"));
    }
}
