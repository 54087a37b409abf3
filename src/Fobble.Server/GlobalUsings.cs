global using Fobble.Core;
global using Fobble.Server.Rooms;
