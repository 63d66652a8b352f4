package awlsmith.server.demo;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import awlsmith.demo.Footage;
import awlsmith.demo.FootageMaker;
import awlsmith.media.MediaException;
import awlsmith.render.Machine;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Makes the demo footage at the first start and puts each clip on the shelf as soon as it is there. */
@Component
public class DemoArchive {
    /** How far the making is; label is empty once all is there. */
    public record Making(String label, double share) {}

    /** Clips that are made with all cores, so that there is something to look at soon. */
    private static final int FIRST = 2;

    private static final Logger LOG = LoggerFactory.getLogger(DemoArchive.class);

    private final boolean wanted;
    private final Clips clips;
    private final MediaFolder media;
    private final Machine machine;
    private final EventHub events;
    private final Cancel cancel = new Cancel();
    private volatile Making making = new Making("", 1);

    DemoArchive(AwlsmithProperties properties, Clips clips, MediaFolder media, Machine machine, EventHub events) {
        this.wanted = properties.demo();
        this.clips = clips;
        this.media = media;
        this.machine = machine;
        this.events = events;
    }

    public Making making() {
        return making;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        if (wanted) {
            Thread.ofPlatform().name("demo-footage").daemon().start(this::make);
        }
    }

    @EventListener(ContextClosedEvent.class)
    void stop() {
        cancel.ask();
    }

    private void make() {
        int few = Math.max(1, machine.threads() / 2);
        try (var aside = Executors.newFixedThreadPool(few)) {
            var maker = new FootageMaker(media.demo(), machine.planes(), machine.work(cancel));
            // whoever looks at the first clips meanwhile must have cores left to look with
            var later = new FootageMaker(media.demo(), machine.planes(), new Work(aside, few, cancel));
            var all = maker.all();
            for (int i = 0; i < all.size(); i++) {
                Footage footage = all.get(i);
                boolean fresh = !java.nio.file.Files.exists(footage.clip());
                if (fresh) {
                    LOG.info("making the demo clip {} ({} of {})", footage.title(), i + 1, all.size());
                }
                String label = footage.title();
                (i < FIRST ? maker : later).make(footage, share -> tell(new Making(label, share)));
                clips.addDemo(footage.title(), footage.clip(), footage.truth());
            }
            LOG.info("the demo archive is ready");
        } catch (Cancel.Stopped e) {
            LOG.info("the demo footage is not complete; the next start goes on with it");
        } catch (IOException | MediaException e) {
            LOG.error("the demo footage could not be made: {}", e.getMessage());
        } finally {
            tell(new Making("", 1));
        }
    }

    private void tell(Making now) {
        // a hundred words a clip are enough
        if (now.label().equals(making.label()) && now.share() - making.share() < 0.01 && now.share() < 1) {
            return;
        }
        making = now;
        events.publish("demo", now);
    }
}
