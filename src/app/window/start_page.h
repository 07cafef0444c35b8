#pragma once
// What is shown without a project: open, new from a survey file, the demo, and what a crash left.

#include <QVBoxLayout>
#include <QWidget>

namespace erdwerk::app {

class StartPage : public QWidget {
    Q_OBJECT
public:
    explicit StartPage(QWidget* parent = nullptr);
    void setLost(const QStringList& journals);

Q_SIGNALS:
    void openPressed();
    void newFromSurveyPressed();
    void emptyPressed();
    void demoPressed();
    void recoverPressed(const QString& journal);

private:
    QVBoxLayout* lost_;
};

}  // namespace erdwerk::app
