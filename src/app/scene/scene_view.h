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

#include "app/base/press.h"
#include "app/base/snapshot.h"
#include "app/scene/scene_layer.h"
#include "core/base/id.h"

namespace erdwerk::app {

class SceneView : public QOpenGLWidget, protected QOpenGLFunctions_3_3_Core {
    Q_OBJECT
public:
    SceneView(Session& session, const SceneLayers& layers, QWidget* parent = nullptr);
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
    /// A right click without dragging, or the menu key: on the screen, and the place on the ground there.
    void menuWanted(QPoint at, std::optional<geometry::Vec2> place);

protected:
    void initializeGL() override;
    void paintGL() override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void leaveEvent(QEvent* event) override;

private:
    /// Half the angle of view, upright, in radians.
    static constexpr double halfAngle = 19 * 3.14159265358979 / 180;
    struct Mesh {
        std::shared_ptr<const void> made;  ///< what it was made from
        std::unique_ptr<QOpenGLVertexArrayObject> array;
        QOpenGLBuffer vertices{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer indices{QOpenGLBuffer::IndexBuffer};
        int count = 0;
    };
    /// As many points as the view can show, from the window round the target.
    struct DensePoints {
        std::shared_ptr<const void> made;
        geometry::Box window;
        std::unique_ptr<QOpenGLVertexArrayObject> array;
        QOpenGLBuffer buffer{QOpenGLBuffer::VertexBuffer};
        int count = 0;
        double spacing = 1;  ///< of what is shown
    };
    /// What is shown is that of the newest results and selection.
    const SceneContent& content();
    void upload();
    void uploadMesh(const SceneMesh& shown);
    void uploadDense(const SceneDense& shown);
    void uploadStrokes();
    void drawMeshes(const QMatrix4x4& matrix);
    void drawDense(const QMatrix4x4& matrix);
    void drawStrokes(const QMatrix4x4& matrix);
    /// The picture that is draped over the meshes, as texture; sets the uniforms of the bound program.
    void bindPicture();
    void paintOverlay();
    [[nodiscard]] QMatrix4x4 matrix() const;
    [[nodiscard]] QVector3D local(geometry::Vec2 p, double z) const;

    Session& session_;
    SceneLayers layers_;
    SceneContent content_;
    std::map<ObjectId, std::unique_ptr<Mesh>> meshes_;
    std::map<ObjectId, std::unique_ptr<DensePoints>> dense_;
    bool strokesUploaded_ = false;
    std::unique_ptr<QOpenGLVertexArrayObject> lineArray_;
    QOpenGLBuffer lineBuffer_{QOpenGLBuffer::VertexBuffer};
    std::unique_ptr<QOpenGLShaderProgram> surfaceProgram_;
    std::unique_ptr<QOpenGLShaderProgram> lineProgram_;
    std::unique_ptr<QOpenGLShaderProgram> pointProgram_;
    std::unique_ptr<QOpenGLTexture> picture_;
    std::shared_ptr<const objects::Picture> pictureOf_;
    geometry::Vec2 origin_;  ///< local origin: floats keep millimetres near it
    double originZ_ = 0;
    double low_ = 0;
    double high_ = 1;
    QVector3D target_;
    double distance_ = 300;
    double turn_ = 20;  ///< degrees, the eye south of the target at 0
    double tilt_ = 38;
    double exaggeration_ = 1.5;
    Press press_;
    bool fitted_ = false;
};

}  // namespace erdwerk::app
