package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Asked, looked at, struck, sent back, approved by different hands, voided: as the people of the demo do it. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ApprovalTest {
    private static final Desk DESK = Desk.shared();

    private static void open(String batch) {
        DESK.go("/approval");
        DESK.pick(batch);
        DESK.press(Keys.ENTER);
        DESK.see("payment");
        DESK.until("the page of " + batch, () -> DESK.driver.getCurrentUrl().matches(".*/approval/\\d+.*"));
    }

    /** A draft of what one vendor is owed, made as whoever sits there, and sent when wanted; answers its number. */
    static String batchOf(String vendor, String name, boolean send) {
        return batchOf(List.of(vendor), name, send);
    }

    static String batchOf(List<String> vendors, String name, boolean send) {
        Object made = DESK.driver.executeAsyncScript("""
                const [vendors, name, send, done] = arguments;
                const token = () => decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
                const get = async (path) => (await fetch(path)).json();
                const post = async (path, body) => {
                  const answer = await fetch(path, { method: "POST", body: JSON.stringify(body),
                    headers: { "Content-Type": "application/json", "X-XSRF-TOKEN": token() } });
                  const text = await answer.text();
                  if (!answer.ok) throw new Error(text);
                  return text ? JSON.parse(text) : {};
                };
                (async () => {
                  const ids = [];
                  for (const vendor of vendors)
                    ids.push((await get("/api/vendors?text=" + encodeURIComponent(vendor)))[0].id);
                  const account = (await get("/api/bank-accounts"))[0].id;
                  const question = { account, checkDate: "2026-11-13", dueBy: "2026-12-31", vendors: ids };
                  const query = `account=${account}&checkDate=2026-11-13&dueBy=2026-12-31&vendors=${ids}`;
                  const due = await get("/api/due?" + query);
                  const batch = await post("/api/batches", { name, note: "",
                    expectedCount: due.count, expectedToPay: due.toPay, question });
                  if (send) await post(`/api/batches/${batch.id}/send`, { version: (await get("/api/batches/" + batch.id)).version });
                  done(String(batch.id));
                })().catch((error) => done("failed: " + error.message));
                """, vendors, name, send);
        assertThat(String.valueOf(made)).matches("\\d+");
        return String.valueOf(made);
    }

    @Test
    @Order(1)
    void twoApproversAStrikeAndWhatChangedSinceTheReturn() {
        DESK.sitDown("Aldo Ferreira");
        open("Crew services, November");
        // it was sent back before: what changed stands out, and the clerk's answer came along
        DESK.see("Changed since it was sent before (1)");
        assertThat(DESK.rows().get(0)).contains("Dogwatch Crewing", "17,655.37");
        DESK.press(Keys.HOME);
        DESK.see("was 17,655.37");
        DESK.press(Keys.ARROW_DOWN);
        DESK.see("address and bank details of Turnstone Security changed on Fri 6 Nov 2026");
        DESK.press(Keys.ARROW_DOWN);
        DESK.see("Six, one for each ship");
        DESK.pick("Kittiwake Uniforms");
        DESK.press("x");
        DESK.see("Strike the payment to");
        DESK.confirm();
        DESK.see("Say why this payment is not made");
        DESK.fill("Why it is not paid now", "wrong sizes came");
        DESK.confirmed();
        DESK.until("it is struck", () -> DESK.rows().stream().noneMatch(row -> row.contains("Kittiwake")));
        DESK.see("wrong sizes came");
        DESK.click("Approve…");
        DESK.see("Marked:");
        DESK.confirmed();
        DESK.see("Approved: “Crew services, November”");
        // one hand is not enough, and it does not count twice
        open("Crew services, November");
        DESK.see("You answered for this batch already");

        DESK.sitDown("Maren Lindqvist");
        open("Crew services, November");
        DESK.see("approved by Aldo Ferreira");
        DESK.click("Approve…");
        DESK.confirmed();
        DESK.sitDown("Tomas Brandt");
        DESK.go("/batches");
        DESK.pick("Crew services, November");
        DESK.press(Keys.ENTER);
        DESK.see("Crew services, November, approved");
        DESK.tab("Approval");
        DESK.see("Struck by approvers");
    }

    @Test
    @Order(2)
    void aDeputySendsBackTheClerkChangesItAndAnEditVoidsTheApproval() {
        DESK.sitDown("Aldo Ferreira");
        DESK.go("/deputies");
        DESK.click("Name a deputy…");
        DESK.choose("Deputy", "Ruth Castellane");
        DESK.confirmed();
        DESK.see("Aldo Ferreira");
        DESK.sitDown("Ines Okafor");
        String batch = batchOf("Plover Packaging", "Packaging", true);

        DESK.sitDown("Ruth Castellane");
        open("Packaging");
        DESK.see("You answer for Aldo Ferreira");
        DESK.press("n");
        DESK.type("leave the newest one");
        DESK.click("Send back with 1…");
        DESK.see("leave the newest one");
        DESK.confirmed();
        DESK.see("is a draft again");

        DESK.sitDown("Ines Okafor");
        DESK.go("/batches/" + batch);
        DESK.see("noted by the approver");
        DESK.press(Keys.END);
        DESK.see("leave the newest one");
        DESK.press(" ");
        DESK.see("Took out");
        DESK.click("Send for approval…");
        DESK.see("Route");
        DESK.confirmed();
        DESK.see("in approval");

        DESK.sitDown("Maren Lindqvist");
        open("Packaging");
        DESK.see("Changed since it was sent before (1)");
        DESK.click("Approve…");
        DESK.confirmed();
        finish("Packaging", "Aldo Ferreira");

        DESK.sitDown("Ines Okafor");
        DESK.go("/batches/" + batch);
        DESK.see("Packaging, approved");
        DESK.press(Keys.END, "1");
        DESK.type(".00");
        DESK.confirmed();
        DESK.see("Packaging, draft");
        DESK.tab("Approval");
        DESK.see("(void: changed afterwards)");
        DESK.go("/mail");
        DESK.see("Approval voided: Packaging");
        DESK.go("/batches/" + batch);
        DESK.click("Change ▾");
        DESK.find(By.xpath("//*[@role='menuitem'][contains(., 'Withdraw')]")).click();
        DESK.confirmed();
    }

    /** Gives the last approval where the route asks for one more. */
    static void finish(String batch, String approver) {
        DESK.sitDown(approver);
        DESK.go("/approval");
        DESK.see("What waits for");
        DESK.until("the desk has loaded", () -> DESK.text().contains("for others"));
        if (DESK.rows().stream().anyMatch(row -> row.contains(batch))) {
            open(batch);
            DESK.click("Approve…");
            DESK.confirmed();
        }
    }

    @Test
    @Order(3)
    void aChangedBankAccountIsConfirmedByAnotherAndRefusesThePaymentByName() {
        DESK.sitDown("Ines Okafor");
        String batch = batchOf("Topsail Coffee Roasters", "Coffee", true);
        for (String approver : new String[] {"Maren Lindqvist", "Aldo Ferreira"}) {
            finish("Coffee", approver);
        }
        DESK.sitDown("Tomas Brandt");
        DESK.go("/vendors?text=Topsail");
        DESK.pick("Topsail Coffee Roasters");
        DESK.press(Keys.ENTER);
        DESK.click("Propose a change…");
        DESK.choose("Bank details", "new ones");
        DESK.fill("Routing number", "990044105");
        DESK.fill("Account number or IBAN", "12");
        DESK.fill("Where this comes from", "a letter, and I called their known number");
        DESK.confirm();
        DESK.see("An account number has 4 to 17 digits");
        DESK.fill("Account number or IBAN", "3300192044");
        DESK.confirmed();
        DESK.see("You proposed it; somebody else confirms");
        assertThat(DESK.text()).doesNotContain("3300192044");

        DESK.sitDown("Ruth Castellane");
        DESK.go("/approval");
        DESK.pick("Topsail Coffee Roasters: bank details");
        DESK.see("••••2044");
        DESK.click("Confirm…");
        DESK.see("nor Tomas Brandt can approve");
        // two people who typed the same
        DESK.fill("Routing number", "990044105");
        DESK.fill("Account number or IBAN", "3300192045");
        DESK.confirm();
        DESK.see("not the account that was proposed");
        DESK.fill("Account number or IBAN", "3300192044");
        DESK.confirmed();
        DESK.see("The payment in Coffee was asked with the old data");

        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.see("kept back");
        DESK.pick("Topsail Coffee Roasters");
        DESK.see("bank details changed after the payment was sent for approval");
        DESK.go("/batches/" + batch);
        DESK.click("Change ▾");
        DESK.find(By.xpath("//*[@role='menuitem'][contains(., 'Withdraw')]")).click();
        DESK.confirmed();
    }

    @Test
    @Order(4)
    void routesAreTriedOutAndWarnedOf() {
        DESK.sitDown("Ruth Castellane");
        DESK.go("/routes");
        DESK.see("Two approvers at once");
        DESK.fill("Total", "20,000.00");
        DESK.fill("Largest payment", "12,000.00");
        DESK.click("Try it");
        DESK.see("the largest payment 12,000.00 is over 10,000.00");
        DESK.click("Change the routes");
        DESK.find(By.cssSelector("[aria-label='Route 3'] [aria-label='How many at step 1']"))
                .sendKeys(Keys.chord(Keys.CONTROL, "a"), "4");
        DESK.click("Check the routes");
        DESK.see("Route “Two approvers at once” can never be completed");
        DESK.click("Leave it as it was");
        DESK.see("kept by Ruth Castellane");
    }

    @Test
    @Order(5)
    void peopleTrailAndAKeptHead() {
        DESK.sitDown("Joss Whitlock");
        DESK.go("/people");
        DESK.click("Add somebody…");
        DESK.fill("Name to sign in with", "nell");
        DESK.fill("Full name", "Nell Sandvik");
        DESK.fill("First password", "password1234");
        DESK.confirm();
        DESK.see("list of common ones");
        DESK.fill("First password", "copper lantern tide nine");
        DESK.confirmed();
        DESK.pick("Nell Sandvik");
        DESK.click("Disable…");
        DESK.confirmed();
        DESK.see("disabled");
        DESK.go("/own");
        DESK.see("this session");

        DESK.sitDown("Priya Nair");
        DESK.go("/trail");
        DESK.pick("disable person");
        DESK.see("Everything done to it");
        DESK.see("Nell Sandvik");
        DESK.go("/proof");
        DESK.see("Every law holds");
        String head = DESK.driver
                .findElements(By.cssSelector("span.font-mono.break-all"))
                .get(0)
                .getText();
        DESK.click("Compare with a kept head…");
        DESK.fill("The head hash", head);
        DESK.confirm();
        DESK.see("The trail still holds it");
        DESK.fill("The head hash", "0".repeat(64));
        DESK.confirm();
        DESK.see("No record of the trail has this hash");
        DESK.type(Keys.ESCAPE);
    }

    @Test
    @Order(6)
    void aPhoneIsWideEnoughToApprove() {
        DESK.sitDown("Ines Okafor");
        String batch = batchOf("Knot & Splice", "Splices", true);
        DESK.driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", true));
        try {
            DESK.sitDown("Maren Lindqvist");
            DESK.go("/approval");
            DESK.see("What waits for");
            assertThat(overflow()).isLessThanOrEqualTo(0);
            DESK.go("/approval/" + batch);
            DESK.see("Knot & Splice");
            assertThat(overflow()).isLessThanOrEqualTo(0);
            assertThat(
                            (boolean)
                                    DESK.driver.executeScript(
                                            "const b = [...document.querySelectorAll('button')].find(b => b.textContent === 'Approve…')"
                                                    + ".getBoundingClientRect(); return b.top >= 0 && b.bottom <= innerHeight && b.right <= innerWidth"))
                    .isTrue();
            DESK.click("Strike…");
            DESK.fill("Why it is not paid now", "paid in cash at the counter");
            DESK.confirmed();
            DESK.see("it is withdrawn");
        } finally {
            DESK.driver.executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
        }
    }

    private static long overflow() {
        return (long) DESK.driver.executeScript(
                "return document.documentElement.scrollWidth - document.documentElement.clientWidth");
    }
}
