#include "app/base/remembered.h"

#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>

namespace erdwerk::app::remembered {

namespace {

constexpr int mostProjects = 8;
constexpr int mostActions = 12;
bool off = false;

QSettings store() {
    return {
        QStandardPaths::writableLocation(QStandardPaths::AppConfigLocation) + QStringLiteral("/window.ini"),
        QSettings::IniFormat};
}

QVariant read(const QString& key) {
    return off ? QVariant() : store().value(key);
}

void write(const QString& key, const QVariant& value) {
    if (!off) store().setValue(key, value);
}

void putFirst(const QString& key, const QString& text, int most) {
    QStringList all = read(key).toStringList();
    all.removeAll(text);
    all.prepend(text);
    write(key, all.mid(0, most));
}

}  // namespace

void turnOff() {
    off = true;
}

void clear() {
    if (!off) store().clear();
}

QByteArray sizes(const QString& pane) {
    return read(QStringLiteral("sizes/") + pane).toByteArray();
}

void setSizes(const QString& pane, const QByteArray& state) {
    write(QStringLiteral("sizes/") + pane, state);
}

std::optional<QSet<QString>> foldedHeadings() {
    const QVariant value = read(QStringLiteral("rack/folded"));
    if (!value.isValid()) return std::nullopt;
    const QStringList list = value.toStringList();
    return QSet<QString>(list.begin(), list.end());
}

void setFoldedHeadings(const QSet<QString>& headings) {
    write(QStringLiteral("rack/folded"), QStringList(headings.begin(), headings.end()));
}

bool benchFolded() {
    return read(QStringLiteral("bench/folded")).toBool();
}

void setBenchFolded(bool folded) {
    write(QStringLiteral("bench/folded"), folded);
}

QSet<QString> moreColumns(const QString& table) {
    const QStringList list = read(QStringLiteral("columns/") + table).toStringList();
    return {list.begin(), list.end()};
}

void setMoreColumns(const QString& table, const QSet<QString>& columns) {
    write(QStringLiteral("columns/") + table, QStringList(columns.begin(), columns.end()));
}

QString lastFolder() {
    return read(QStringLiteral("files/folder")).toString();
}

void setLastFile(const QString& path) {
    if (!path.isEmpty()) write(QStringLiteral("files/folder"), QFileInfo(path).absolutePath());
}

QStringList recentProjects() {
    QStringList out;
    for (const QString& path : read(QStringLiteral("files/projects")).toStringList())
        if (QFileInfo::exists(path)) out << path;
    return out;
}

void addRecentProject(const QString& path) {
    if (!path.isEmpty())
        putFirst(QStringLiteral("files/projects"), QFileInfo(path).absoluteFilePath(), mostProjects);
}

QStringList lastActions() {
    return read(QStringLiteral("finder/actions")).toStringList();
}

void addAction(const QString& id) {
    putFirst(QStringLiteral("finder/actions"), id, mostActions);
}

}  // namespace erdwerk::app::remembered
