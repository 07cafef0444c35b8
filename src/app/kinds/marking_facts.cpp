#include "app/kinds/marking_facts.h"

#include "core/base/notation.h"

namespace erdwerk::app {

void markingFacts(FactsForm& form, const route::Marking& marking,
                  const std::function<document::Edit(MarkingChange)>& edit) {
    const auto figure = [&](const QString& name, double route::Marking::*field) {
        form.typedEntry(name, text(formatExact(marking.*field)), [edit, field](std::string typed) {
            return edit([typed, field](route::Marking& m) -> Result<void> {
                const auto value = parseNumber(trimmed(typed));
                if (!value) return badInput("'" + typed + "' is no figure");
                m.*field = *value;
                return {};
            });
        });
    };
    const auto shown = [&](const QString& name, bool route::Marking::*field) {
        form.editCheck(name, marking.*field, [edit, field](bool on) {
            return edit([field, on](route::Marking& m) -> Result<void> {
                m.*field = on;
                return {};
            });
        });
    };
    figure(QObject::tr("Short ticks every"), &route::Marking::small);
    figure(QObject::tr("Long ticks every"), &route::Marking::large);
    shown(QObject::tr("Points of change"), &route::Marking::points);
    shown(QObject::tr("Curve figures"), &route::Marking::curves);
    shown(QObject::tr("Speeds"), &route::Marking::speeds);
    shown(QObject::tr("Equations"), &route::Marking::equations);
    shown(QObject::tr("Stations on the right"), &route::Marking::right);
    figure(QObject::tr("Texts, mm"), &route::Marking::height);
}

}  // namespace erdwerk::app
