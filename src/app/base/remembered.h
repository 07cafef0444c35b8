#pragma once
// What the application remembers from one run to the next. It never belongs to a project.

#include <QByteArray>
#include <QSet>
#include <QString>
#include <QStringList>
#include <optional>

namespace erdwerk::app::remembered {

/// From now on nothing is read or written (pictures look the same on every machine).
void turnOff();
/// Forgets everything.
void clear();

// Sizes of the window and its panes, by the name of the pane.
QByteArray sizes(const QString& pane);
void setSizes(const QString& pane, const QByteArray& state);

/// Headings of the rack that are folded; nothing when it was never said.
std::optional<QSet<QString>> foldedHeadings();
void setFoldedHeadings(const QSet<QString>& headings);
bool benchFolded();
void setBenchFolded(bool folded);

/// Columns of a table that were chosen beyond its usual ones, by their names.
QSet<QString> moreColumns(const QString& table);
void setMoreColumns(const QString& table, const QSet<QString>& columns);

/// Where the last file was chosen; empty at first.
QString lastFolder();
/// Remembers the folder of a file.
void setLastFile(const QString& path);

/// Projects that were open, the last one first; those that are gone are left out.
QStringList recentProjects();
void addRecentProject(const QString& path);

/// Ids of actions, the last one first.
QStringList lastActions();
void addAction(const QString& id);

}  // namespace erdwerk::app::remembered
