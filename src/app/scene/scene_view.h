#pragma once
// The 3D twin view: the surface shaded with height colours, lines on it, orbit and zoom, one hover with the
// plan.

#include <QMatrix4x4>
#include <QOpenGLBuffer>
#include <QOpenGLFunctions_3_3_Core>
#include <QOpenGLShaderProgram>
#include <QOpenGLTexture>
#include <QOpenGLVertexArrayObject>
#include <QOpenGLWidget>
#include <memory>
#include <vector>

#include "app/base/session.h"

namespace erdwerk::app {

class SceneView : public QOpenGLWidget, protected QOpenGLFunctions_3_3_Core {
    Q_OBJECT
public:
    explicit SceneView(Session& session, QWidget* parent = nullptr);
    ~SceneView() override;
    void fit();
    void setExaggeration(double factor);
    [[nodiscard]] double exaggeration() const { return exaggeration_; }
    /// Where a place is drawn; nothing behind the eye.
    [[nodiscard]] std::optional<QPointF> project(geometry::Vec2 place, double height) const;
    /// The place on the surface under a pixel.
    [[nodiscard]] std::optional<geometry::Vec3> placeUnder(QPointF pixel) const;
    void orbit(double turn, double tilt);
    void zoom(double factor);
    /// Looks at a place at the scale of a plan (pixels per project unit).
    void follow(geometry::Vec2 centre, double scale);
    struct PlanPlace {
        geometry::Vec2 centre;
        double scale = 1;
    };
    [[nodiscard]] PlanPlace planView() const;

Q_SIGNALS:
    void moved();  ///< by the user, in plan or scale

protected:
    void initializeGL() override;
    void paintGL() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void leaveEvent(QEvent* event) override;

private:
    /// Half the angle of view, upright, in radians.
    static constexpr double halfAngle = 19 * 3.14159265358979 / 180;
    struct Mesh {
        std::shared_ptr<const void> made;  ///< the result it was made from
        std::unique_ptr<QOpenGLVertexArrayObject> array;
        QOpenGLBuffer vertices{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer indices{QOpenGLBuffer::IndexBuffer};
        int count = 0;
    };
    /// As many points of a cloud as the view can show, from the window round the target.
    struct CloudPoints {
        std::shared_ptr<const void> made;  ///< the object they were made from
        geometry::Box window;
        std::unique_ptr<QOpenGLVertexArrayObject> array;
        QOpenGLBuffer buffer{QOpenGLBuffer::VertexBuffer};
        int count = 0;
        double spacing = 1;  ///< of what is shown
    };
    void uploadClouds();
    void drawClouds(const QMatrix4x4& matrix);
    /// The backdrop that is draped over the surfaces, as texture; sets the uniforms of the bound program.
    void bindBackdrop();
    void uploadSurfaces();
    void uploadLines();
    void drawLines(const QMatrix4x4& matrix);
    void paintOverlay();
    [[nodiscard]] QMatrix4x4 matrix() const;
    [[nodiscard]] QVector3D local(geometry::Vec2 p, double z) const;

    Session& session_;
    std::map<ObjectId, std::unique_ptr<Mesh>> surfaces_;
    struct Stroke {
        int first = 0;
        int count = 0;
        QColor colour;
        float width = 1;
    };
    std::vector<Stroke> strokes_;
    std::unique_ptr<QOpenGLVertexArrayObject> lineArray_;
    QOpenGLBuffer lineBuffer_{QOpenGLBuffer::VertexBuffer};
    SnapshotPointer linesOf_;
    std::vector<Ref> linesSelection_;
    std::unique_ptr<QOpenGLShaderProgram> surfaceProgram_;
    std::unique_ptr<QOpenGLShaderProgram> lineProgram_;
    std::unique_ptr<QOpenGLShaderProgram> pointProgram_;
    std::map<ObjectId, std::unique_ptr<CloudPoints>> clouds_;
    std::unique_ptr<QOpenGLTexture> backdrop_;
    std::shared_ptr<const objects::Picture> backdropOf_;
    geometry::Vec2 origin_;  ///< local origin: floats keep millimetres near it
    double originZ_ = 0;
    double low_ = 0;
    double high_ = 1;
    QVector3D target_;
    double distance_ = 300;
    double turn_ = 20;  ///< degrees, the eye south of the target at 0
    double tilt_ = 38;
    double exaggeration_ = 1.5;
    QPointF last_;
    bool fitted_ = false;
};

}  // namespace erdwerk::app
