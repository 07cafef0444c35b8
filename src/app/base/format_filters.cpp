#include "app/base/format_filters.h"

#include <QCoreApplication>
#include <QStringList>
#include <algorithm>

#include "core/format/formats.h"

namespace erdwerk::app {

namespace {

using format::Format;

QString pattern(std::string_view ending) {
    return QLatin1Char('*') + QString::fromUtf8(ending.data(), static_cast<qsizetype>(ending.size()));
}

/// The name and the ending that is written.
QString filterOf(const Format& format, const QString& how = {}) {
    const QString name = QString::fromUtf8(format.name.data(), static_cast<qsizetype>(format.name.size()));
    return QStringLiteral("%1%2 (%3)").arg(name, how, pattern(format.endings.front()));
}

QString withAllDigits(const Format& format) {
    return filterOf(format, QCoreApplication::translate("Files", ", full precision"));
}

}  // namespace

QString filterToOpen(const QString& name, format::FileSort sort) {
    QStringList patterns;
    for (const Format& format : format::formats()) {
        const bool offered =
            std::find(format.offered.begin(), format.offered.end(), sort) != format.offered.end();
        if (format.read == nullptr || (format.sort != sort && !offered)) continue;
        for (const auto ending : format.endings) patterns << pattern(ending);
    }
    return QCoreApplication::translate("Files", "%1 (%2);;All files (*)")
        .arg(name, patterns.join(QLatin1Char(' ')));
}

QString filterToExport() {
    QStringList out;
    for (const Format& format : format::formats()) {
        if (format.write == nullptr || format.sort == format::FileSort::Project) continue;
        if (format.hasFigures) {
            out << filterOf(format, QCoreApplication::translate("Files", ", decimals as shown"));
            out << withAllDigits(format);
        } else {
            out << filterOf(format);
        }
    }
    return out.join(QStringLiteral(";;"));
}

format::Figures figuresOf(const QString& chosen) {
    const auto& all = format::formats();
    const bool full = std::any_of(all.begin(), all.end(), [&](const Format& format) {
        return format.hasFigures && chosen == withAllDigits(format);
    });
    return full ? format::Figures::Full : format::Figures::AsShown;
}

QString filterToWriteSurface() {
    QStringList out;
    for (const Format& format : format::formats())
        if (format.writeSurface != nullptr) out << filterOf(format);
    return out.join(QStringLiteral(";;"));
}

}  // namespace erdwerk::app
