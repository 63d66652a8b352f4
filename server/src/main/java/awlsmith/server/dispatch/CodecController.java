package awlsmith.server.dispatch;

import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Preset;
import awlsmith.server.steps.ParamDescription;
import java.util.List;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Every codec that can be sent out in, with what can be set: the dialog of sending out follows from these. */
@RestController
class CodecController {
    /** @param containers the usual one first */
    record CodecDescription(
            String id,
            String label,
            String purpose,
            List<String> containers,
            boolean lossless,
            boolean transparency,
            List<ParamDescription> params) {

        static CodecDescription of(Codec codec) {
            return new CodecDescription(
                    codec.id(),
                    codec.label(),
                    codec.purpose(),
                    codec.containers().stream().map(Container::label).toList(),
                    codec.isLossless(),
                    codec.holdsAlpha(),
                    codec.params().stream().map(ParamDescription::of).toList());
        }
    }

    @GetMapping("/api/codecs")
    List<CodecDescription> codecs() {
        return Codecs.all().stream().map(CodecDescription::of).toList();
    }

    /** What to send out, by what it is for. @param settings of the codec, as they are written */
    record PresetDescription(String id, String label, String purpose, String codec, Map<String, Object> settings) {
        static PresetDescription of(Preset preset) {
            return new PresetDescription(
                    preset.id(),
                    preset.label(),
                    preset.purpose(),
                    preset.codec().id(),
                    preset.settings());
        }
    }

    @GetMapping("/api/presets")
    List<PresetDescription> presets() {
        return Preset.all().stream().map(PresetDescription::of).toList();
    }
}
