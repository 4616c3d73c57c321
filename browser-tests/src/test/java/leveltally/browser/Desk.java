package leveltally.browser;

import com.deque.html.axecore.results.Rule;
import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.ElementNotInteractableException;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** One browser for all tests, and the things a person does with it: look, click by words, press keys. */
final class Desk {
    private static final Duration PATIENCE = Duration.ofSeconds(40);
    private static Desk shared;

    final ChromeDriver driver;
    private Running visiting;

    private Desk(ChromeDriver driver) {
        this.driver = driver;
    }

    static synchronized Desk shared() {
        if (shared == null) {
            try {
                Path profile = Files.createTempDirectory("level-tally-chromium");
                ChromeOptions options = new ChromeOptions();
                options.setBinary("/usr/bin/chromium");
                options.addArguments(
                        "--headless=new",
                        "--no-sandbox",
                        "--disable-gpu",
                        "--disable-dev-shm-usage",
                        "--no-first-run",
                        "--disable-background-networking",
                        "--disable-component-update",
                        "--disable-sync",
                        "--disable-quic",
                        "--lang=en-US",
                        "--user-data-dir=" + profile);
                var service = new ChromeDriverService.Builder()
                        .usingDriverExecutable(new java.io.File("/usr/bin/chromedriver"))
                        .build();
                ChromeDriver driver = new ChromeDriver(service, options);
                driver.manage().window().setSize(new Dimension(1280, 800));
                shared = new Desk(driver);
                Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                    driver.quit();
                    try {
                        new ProcessBuilder(List.of("rm", "-rf", profile.toString()))
                                .start()
                                .waitFor();
                    } catch (IOException | InterruptedException leftOver) {
                        Thread.currentThread().interrupt();
                    }
                }));
            } catch (IOException broken) {
                throw new IllegalStateException(broken);
            }
        }
        return shared;
    }

    /** Signs whoever is there out, and this person in by the offer on the sign-in page. */
    void sitDown(String name) {
        driver.manage().deleteAllCookies();
        go("/");
        click(name);
        see("Post");
        see("Bank");
    }

    void go(String path) {
        driver.get((visiting == null ? Running.shared() : visiting).address() + path);
    }

    /** Works at another application from now on; null for the one all tests share. */
    void visit(Running other) {
        visiting = other;
        driver.manage().deleteAllCookies();
    }

    /** Signs whoever is there out, and this person in by their password. */
    void signIn(String name, String password) {
        driver.manage().deleteAllCookies();
        go("/");
        fill("Name to sign in with", name);
        fill("Password", password);
        click("Sign in");
    }

    private WebDriverWait patience() {
        WebDriverWait wait = new WebDriverWait(driver, PATIENCE);
        wait.pollingEvery(Duration.ofMillis(60));
        wait.ignoring(StaleElementReferenceException.class).ignoring(ElementNotInteractableException.class);
        return wait;
    }

    /** Waits until these words stand on the page. */
    void see(String words) {
        patience()
                .withMessage(() -> "waiting to see “" + words + "”; the page says: " + text())
                .until(d -> text().contains(words));
    }

    /** What stands on the page; asked of the page itself, because the driver's own way takes most of a second on a long list. */
    String text() {
        return (String) driver.executeScript("return document.body?.innerText ?? ''");
    }

    private static final String FIRST_WITH_WORDS = """
            const [among, words, gap] = arguments;
            return [...document.querySelectorAll(among)].find(one => !one.disabled
                && one.checkVisibility({visibilityProperty: true})
                && one.innerText.trim().replaceAll('\\n', gap).includes(words)) ?? null;
            """;

    /** Clicks the first that can be clicked among these whose words, with the gap between their parts, hold those. */
    private void clickAmong(String among, String words, String gap) {
        patience()
                .withMessage(() -> "waiting to click “" + words + "”; the page says: " + text())
                .until(d -> {
                    WebElement found = (WebElement) driver.executeScript(FIRST_WITH_WORDS, among, words, gap);
                    if (found != null) {
                        found.click();
                    }
                    return found != null;
                });
    }

    /** Clicks the first enabled button or link whose words hold these. */
    void click(String words) {
        clickAmong("button, a, summary", words, "\n");
    }

    /** Answers the open dialog with its own button. */
    void confirm() {
        patience().until(d -> {
            WebElement button = d.findElement(By.cssSelector("[role=dialog] button[type=submit]"));
            if (!button.isEnabled()) {
                return false;
            }
            button.click();
            return true;
        });
    }

    /** Answers the open dialog and waits until it is gone. */
    void confirmed() {
        confirm();
        patience()
                .withMessage(() -> "the dialog stays: " + text())
                .until(d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
    }

    /** Types into the field of the open dialog that has the cursor. */
    void type(CharSequence... keys) {
        driver.switchTo().activeElement().sendKeys(keys);
    }

    /** Fills a field by its label. */
    void fill(String label, String value) {
        WebElement field = patience()
                .until(d ->
                        d.findElement(By.xpath("//label[contains(., '" + label + "')]//input | //label[contains(., '"
                                + label + "')]//textarea" + " | //label[contains(., '" + label + "')]//select")));
        if (field.getTagName().equals("select")) {
            new org.openqa.selenium.support.ui.Select(field).selectByValue(value);
        } else {
            field.sendKeys(Keys.chord(Keys.CONTROL, "a"), value);
        }
    }

    /** Whether there is such a thing now. */
    boolean has(By what) {
        return !driver.findElements(what).isEmpty();
    }

    WebElement list() {
        WebElement list = patience().until(d -> d.findElement(By.cssSelector("[role=grid]")));
        patience()
                .until(d -> !d.findElements(By.cssSelector("[role=grid] [data-key]"))
                        .isEmpty());
        return list;
    }

    /** Presses keys inside the list. */
    void press(CharSequence... keys) {
        WebElement list = list();
        ((JavascriptExecutor) driver).executeScript("arguments[0].focus()", list);
        list.sendKeys(keys);
    }

    /** Puts the cursor on the first row that holds these words. */
    void pick(String words) {
        clickAmong("[role=grid] [data-key]", words, " ");
    }

    /** Turns to a tab of the slip. */
    void tab(String name) {
        patience().withMessage("waiting for the tab " + name).until(d -> {
            d.findElement(By.xpath("//button[@role='tab'][contains(., '" + name + "')]"))
                    .click();
            return true;
        });
    }

    /** Chooses an entry of a field by what it says. */
    void choose(String label, String entry) {
        patience().withMessage("waiting for “" + entry + "”").until(d -> {
            new org.openqa.selenium.support.ui.Select(
                            d.findElement(By.xpath("//label[contains(., '" + label + "')]//select")))
                    .selectByVisibleText(entry);
            return true;
        });
    }

    /** True when the cursor of the due list is on an invoice that is taken. */
    boolean onTakenRow() {
        return !driver.findElements(By.cssSelector("[data-key].bg-cursor [role=checkbox][aria-checked=true]"))
                .isEmpty();
    }

    /** The first such thing, as soon as it is there. */
    WebElement find(By where) {
        return patience()
                .withMessage(() -> "no " + where + "; the page says: " + text())
                .until(d -> d.findElement(where));
    }

    /** What the list says. */
    String listed() {
        return (String) driver.executeScript("return arguments[0].innerText", list());
    }

    @SuppressWarnings("unchecked")
    List<String> rows() {
        return (List<String>) driver.executeScript(
                "return [...document.querySelectorAll('[role=grid] [data-key]')].map(row => row.innerText)");
    }

    /** The amount of a tally on the level strip, once it is reached. */
    String tally(String step) {
        By where = By.cssSelector("[data-tally=" + step + "] b");
        return patience()
                .withMessage("no tally " + step)
                .until(d -> d.findElement(where).getText());
    }

    boolean isLevel() {
        return "true".equals(driver.findElement(By.cssSelector("[data-level]")).getDomAttribute("data-level"));
    }

    void until(String what, java.util.function.BooleanSupplier holds) {
        patience().withMessage(() -> what + "; the page says: " + text()).until(d -> holds.getAsBoolean());
    }

    private static final String MOVING = """
            return document.getAnimations().some(one => one.playState === 'running'
                && Number.isFinite(one.effect.getComputedTiming().endTime));
            """;

    /** What keeps somebody from using what stands on the page; what fades in has its colours only when it has come. */
    List<String> barriers(AxeBuilder axe) {
        until("everything has come to rest", () -> !(boolean) driver.executeScript(MOVING));
        return axe.analyze(driver).getViolations().stream()
                .map((Rule rule) -> rule.getId() + " " + rule.getNodes().get(0).getHtml())
                .toList();
    }
}
