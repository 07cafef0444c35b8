#include <algorithm>

#include "core/base/csv.h"
#include "core/check/all_checks.h"
#include "core/derive/surface_result.h"

namespace erdwerk::check {

std::string_view severityName(Severity severity) {
    switch (severity) {
        case Severity::MustFix:
            return "must-fix";
        case Severity::LookAt:
            return "look-at";
        case Severity::Note:
            break;
    }
    return "note";
}

document::Accepted acceptance(const Finding& finding, std::string reason) {
    return {finding.kind, finding.at.value_or(geometry::Vec2{}), finding.objects, std::move(reason)};
}

bool isAccepted(const document::Settings& settings, const Finding& finding) {
    return std::any_of(settings.accepted.begin(), settings.accepted.end(), [&](const auto& a) {
        return a.kind == finding.kind && a.objects == finding.objects &&
               (!finding.at || geometry::distance(a.at, *finding.at) < 0.002);
    });
}

namespace {

using Inputs = std::vector<std::shared_ptr<const void>>;

/// Appends what `check` finds, or what it found when its inputs were these.
template <class Work>
void remembered(Memory* memory, const std::string& key, Inputs of, std::vector<Finding>& out,
                const Context& context, const Work& check) {
    if (context.isCancelled()) return;
    if (memory == nullptr) return check(out);
    Memory::Entry& entry = memory->entries[key];
    if (entry.of != of) {
        entry.of.clear();
        entry.findings.clear();
        check(entry.findings);
        // What was cut short is looked at anew next time.
        if (context.isCancelled()) return;
        entry.of = std::move(of);
    }
    entry.used = true;
    out.insert(out.end(), entry.findings.begin(), entry.findings.end());
}

Inputs pointsOf(const derive::Derived& derived) {
    Inputs out{derived.document.settingsPointer()};
    for (const auto id : derived.document.all<objects::Points>()) out.push_back(derived.document.find(id));
    return out;
}

struct Check {
    const char* name;
    void (*run)(const derive::Derived&, std::vector<Finding>&);
    bool ofPoints;
};

#define ERDWERK_CHECK(name) Check{#name, name, false},
#define ERDWERK_CHECK_OF_POINTS(name) Check{#name, name, true},
constexpr Check checks[]{ERDWERK_CHECKS(ERDWERK_CHECK, ERDWERK_CHECK_OF_POINTS)};
#undef ERDWERK_CHECK
#undef ERDWERK_CHECK_OF_POINTS

}  // namespace

Result<std::vector<Finding>> run(const derive::Derived& derived, Memory* memory, const Context& context) {
    std::vector<Finding> out;
    if (memory != nullptr)
        for (auto& [key, entry] : memory->entries) entry.used = false;
    for (const Check& check : checks) {
        if (context.isCancelled()) return cancelled();
        if (!check.ofPoints)
            check.run(derived, out);
        else
            remembered(memory, check.name, pointsOf(derived), out, context,
                       [&](std::vector<Finding>& found) { check.run(derived, found); });
    }
    for (const auto& [id, result] : derived.surfaces)
        if (result->locator)
            remembered(memory, "surface " + std::to_string(id.value) + " " + derived.document.nameOf(id),
                       {result, derived.document.settingsPointer()}, out, context,
                       [&, surface = id](std::vector<Finding>& found) {
                           triangleFaults(derived, surface, found, context);
                       });
    if (context.isCancelled()) return cancelled();
    if (memory != nullptr) std::erase_if(memory->entries, [](const auto& e) { return !e.second.used; });
    const auto& settings = derived.document.settings();
    if (!settings.accepted.empty())
        std::erase_if(out, [&](const Finding& f) { return isAccepted(settings, f); });
    std::stable_sort(out.begin(), out.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

std::vector<Finding> run(const derive::Derived& derived, Memory* memory) {
    return *run(derived, memory, {});
}

std::string toCsv(const std::vector<Finding>& findings, const DisplaySettings* display) {
    const auto joined = [](const auto& values, const auto& text) {
        std::string out;
        for (const auto& v : values) out += (out.empty() ? "" : "; ") + text(v);
        return out;
    };
    const auto length = [&](double v) {
        return display != nullptr ? formatFixed(v, display->lengthDecimals) : formatExact(v);
    };
    const auto height = [&](double v) {
        return display != nullptr ? formatFixed(v, display->heightDecimals) : formatExact(v);
    };
    const std::string unit =
        display != nullptr ? " (" + std::string(unitSymbol(display->unit)) + ")" : std::string();
    std::string out =
        "severity,kind,easting" + unit + ",northing" + unit + ",heights" + unit + ",names,text\r\n";
    for (const Finding& f : findings) {
        const auto same = [](const std::string& s) { return s; };
        out += std::string(severityName(f.severity)) + "," + f.kind + "," +
               (f.at ? length(f.at->x) + "," + length(f.at->y) : std::string(",")) + "," +
               csvCell(joined(f.heights, height)) + "," + csvCell(joined(f.names, same)) + "," +
               csvCell(f.text) + "\r\n";
    }
    return out;
}

}  // namespace erdwerk::check
