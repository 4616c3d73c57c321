package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Several checks stopped and voided in one deed, payees asked, entries handed over and taken back. */
class UndoneTest {
    private static final Desk DESK = Desk.shared();

    @Test
    void severalChecksAreStoppedThenVoidedHeldInOneDeed() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/register?state=OUTSTANDING&older=180");
        DESK.list();
        DESK.press(Keys.HOME);
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.see("2 of them can be voided");
        DESK.click("Stop 2 checks…");
        DESK.fill("Why they are stopped", "both lost in one mailbag");
        DESK.confirmed();
        DESK.see("2 checks stopped here");
        DESK.go("/register?state=STOPPED&older=180");
        DESK.list();
        DESK.press(Keys.HOME);
        DESK.see("both lost in one mailbag");
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.click("Void 2 checks…");
        DESK.see("Void 2 checks on");
        DESK.click("come back open");
        DESK.click("come back held");
        DESK.see("open again and held");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("Void 2 checks…");
        DESK.fill("Why it is voided", "both lost in one mailbag");
        DESK.confirmed();
        DESK.see("Done: ");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    @Test
    void aPayeeIsAskedAndThatIsWrittenDown() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/stale?days=30");
        DESK.see("How old outstanding checks are");
        DESK.list();
        DESK.press(Keys.END);
        DESK.click("Write down…");
        DESK.fill("What was asked", "promised to present it");
        DESK.confirmed();
        DESK.see("promised to present it");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("Hand over as unclaimed…");
        DESK.see("can be handed over to Skerrow from");
    }

    @Test
    void entriesAreHandedOverAndTakenBack() {
        DESK.sitDown("Ruth Castellane");
        DESK.go("/ledger?view=hand-over");
        DESK.see("entries wait");
        DESK.click("Hand entries over…");
        DESK.confirmed();
        DESK.see("The file as CSV");
        DESK.see("0 entries wait");
        DESK.click("Take it back…");
        DESK.fill("Why it is taken back", "its month is closed there");
        DESK.confirmed();
        DESK.see("taken back");
        DESK.see("its month is closed there");
        DESK.until(
                "its entries wait again",
                // 230 of them end with a nought, too
                () -> !DESK.find(By.cssSelector("[aria-label=Criteria]"))
                        .getText()
                        .matches("(?s)(.*\\D)?0 entries wait.*"));
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }

    /** The page of what the search finds first. */
    private static void goTo(String found) {
        DESK.go((String) DESK.driver.executeAsyncScript(
                "const done = arguments[1]; fetch('/api/search?text=' + encodeURIComponent(arguments[0]))"
                        + ".then(r => r.json()).then(f => done(f[0].address));",
                found));
    }

    @Test
    void aLostCheckIsPaidOnceMore() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/register?state=OUTSTANDING&older=20");
        DESK.list();
        DESK.press(Keys.END);
        DESK.click("Reissue…");
        DESK.fill("Why it is paid once more", "lost in the mail");
        DESK.confirmed();
        DESK.see("its reissue waits for approval as batch");
        DESK.go("/batches");
        DESK.pick("Reissue of check");
        DESK.see("in approval");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }

    @Test
    void anInvoiceIsPaidOtherwiseThenCancelledAndWhatWasSaidStays() {
        DESK.sitDown("Ines Okafor");
        goTo("WL-4799");
        DESK.see("Whimbrel Lubricants");
        DESK.click("Note…");
        DESK.fill("Note", "they send another one");
        DESK.confirmed();
        DESK.see("they send another one");
        DESK.click("Pay it otherwise…");
        DESK.fill("Other terms", "net 60");
        DESK.fill("Why", "agreed by telephone");
        DESK.confirmed();
        DESK.see("Fri 8 Jan 2027");
        DESK.click("Cancel it…");
        DESK.fill("Why it is cancelled", "billed to the wrong company");
        DESK.confirmed();
        DESK.see("cancelled on Thu 12 Nov 2026");
        DESK.see("Cancelled");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }

    @Test
    void whatWasPaidAheadIsUnmatchedAndMatched() {
        DESK.sitDown("Ines Okafor");
        goTo("LE-PF-88");
        DESK.see("Prepayment matched");
        DESK.see("840.00");
        DESK.click("take back…");
        DESK.confirmed();
        DESK.see("Paid ahead of it");
        DESK.see("1,500.00 waits");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("match it");
        DESK.see("1,500.00 of it was paid ahead");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }
}
