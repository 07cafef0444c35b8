#include "app/kinds/marking_facts.h"

#include "core/base/notation.h"

namespace erdwerk::app {

void markingFacts(FactsForm& form, const route::MarkingSettings& marking,
                  const std::function<document::Edit(MarkingChange)>& edit) {
    const auto figure = [&](const QString& name, double route::MarkingSettings::*field) {
        form.typedEntry(name, text(formatExact(marking.*field)), [edit, field](std::string typed) {
            return edit([typed, field](route::MarkingSettings& m) -> Result<void> {
                const auto value = parseNumber(trimmed(typed));
                if (!value) return badInput("'" + typed + "' is no figure");
                m.*field = *value;
                return {};
            });
        });
    };
    const auto shown = [&](const QString& name, bool route::MarkingSettings::*field) {
        form.editCheck(name, marking.*field, [edit, field](bool on) {
            return edit([field, on](route::MarkingSettings& m) -> Result<void> {
                m.*field = on;
                return {};
            });
        });
    };
    figure(QObject::tr("Short ticks every"), &route::MarkingSettings::small);
    figure(QObject::tr("Long ticks every"), &route::MarkingSettings::large);
    shown(QObject::tr("Points of change"), &route::MarkingSettings::points);
    shown(QObject::tr("Curve figures"), &route::MarkingSettings::curves);
    shown(QObject::tr("Speeds"), &route::MarkingSettings::speeds);
    shown(QObject::tr("Equations"), &route::MarkingSettings::equations);
    shown(QObject::tr("Stations on the right"), &route::MarkingSettings::right);
    figure(QObject::tr("Texts, mm"), &route::MarkingSettings::height);
}

}  // namespace erdwerk::app
