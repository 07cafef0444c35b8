#pragma once
// What is shown without a project: open, new from a survey file, the demo, and what a crash left.

#include <QVBoxLayout>
#include <QWidget>

namespace erdwerk::app {

class StartPage : public QWidget {
    Q_OBJECT
public:
    explicit StartPage(QWidget* parent = nullptr);
    /// Projects that were open before, the last one first.
    void setRecent(const QStringList& paths);
    void setLost(const QStringList& journals);

Q_SIGNALS:
    void openPressed();
    void newFromSurveyPressed();
    void emptyPressed();
    void demoPressed();
    void recentPressed(const QString& path);
    void recoverPressed(const QString& journal);

private:
    QVBoxLayout* recent_;
    QVBoxLayout* lost_;
};

}  // namespace erdwerk::app
